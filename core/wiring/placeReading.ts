import { z } from "zod";
import { noises, spinFeels } from "../motor/mechanicalMode";
import { patterns, states, temperatures } from "../predict/moment";
import { airflowSeen } from "../predict/observations/airflowSeen";
import { historyOf, historySeen } from "../predict/observations/history";
import { inspectSeen } from "../predict/observations/inspect";
import { lamploadSeen } from "../predict/observations/lampload";
import { lightSeen } from "../predict/observations/light";
import { rippleSeen } from "../predict/observations/ripple";
import { smellSeen } from "../predict/observations/smell";
import { swapSeen } from "../predict/observations/swap";
import { tapSeen } from "../predict/observations/tap";
import { type Place, partPlaces, plugPlaces } from "./place";

/** The label a person gave a cavity of a plug: it says nothing about what the pin is. */
const label = z.string().regex(/^[a-z][a-z0-9]{0,3}$/, "a label is a lower-case letter, such as a");
const mostLabels = 12;
const labelled = <T extends z.ZodType>(value: T) =>
  z.record(label, value).refine((own) => Object.keys(own).length <= mostLabels, {
    error: `at most ${mostLabels} pins can be read at once`,
  });

/** A labelled pin, or a place any lead can go: `motor-plug:a`, `ground`, `feed`. */
const pinOrPost = z
  .string()
  .regex(new RegExp(`^(ground|feed|(${plugPlaces.join("|")}):[a-z][a-z0-9]{0,3})$`), {
    error: "expected ground, feed or a labelled pin such as motor-plug:a",
  });

const pinOfPlug = z.string().regex(new RegExp(`^(${plugPlaces.join("|")}):[a-z][a-z0-9]{0,3}$`), {
  error: "expected a labelled pin such as motor-plug:a",
});

const common = {
  key: z.enum(["off", "acc", "run"]).optional(),
  engine: z.boolean().optional(),
  /** `0` is off; the highest number is the strongest speed. */
  setting: z
    .string()
    .regex(/^\d{1,2}$/, "a setting is a number: 0 is off")
    .optional(),
  heard: z.boolean().optional(),
  state: z.enum(states).optional(),
  temperature: z.enum(temperatures).optional(),
  minutesIn: z.number().min(0).max(600).optional(),
};

const plug = z.enum(plugPlaces);
const anyPlace = z.enum([...plugPlaces, ...partPlaces]);
const post = z.enum(["ground", "feed"]);
const volts = z.number().min(-1000).max(1000);
const ohms = z.number().min(0).max(1e9).nullable();

/** Whether both ends of a fuse are fed. */
export const fuseStates = ["good", "blown", "dead"] as const;

/** The tests that a reading by place can be of. */
export const placeTestNames = [
  ...["airflow", "light", "volts", "ohms", "amps", "wires", "lampload", "look", "spin", "listen", "smell"],
  ...["history", "tap", "swap", "ripple"],
] as const;

/** A second motor's plug that the vehicle does not have, asked for with the load lamp. */
const absentPlug = z.strictObject({
  test: z.literal("lampload"),
  ...common,
  lampFor: z.enum(["motor-plug", "motor-plug-2"]),
  absent: z.literal(true),
});

/** What the vehicle does not have. */
const absent = z.strictObject({
  test: z.enum(["light", "volts", "ohms", "wires", "look", "spin", "tap", "swap"]),
  ...common,
  at: anyPlace,
  clip: post.optional(),
  red: post.optional(),
  black: post.optional(),
  from: label.optional(),
  absent: z.literal(true),
});

/** Readings by place, as they are taken on a vehicle without a diagram (docs/formats). */
export const placeReadingSchema = z.union([
  absent,
  absentPlug,
  z.strictObject({
    test: z.literal("light"),
    ...common,
    at: plug,
    clip: post,
    seen: labelled(z.enum(lightSeen)),
  }),
  z.strictObject({
    test: z.literal("light"),
    ...common,
    at: z.literal("fuses"),
    clip: z.literal("ground").default("ground"),
    seen: labelled(z.enum(fuseStates)),
  }),
  z.strictObject({
    test: z.literal("volts"),
    ...common,
    at: plug,
    black: z.literal("ground"),
    volts: labelled(volts),
  }),
  z.strictObject({
    test: z.literal("volts"),
    ...common,
    at: plug,
    red: z.literal("feed"),
    volts: labelled(volts),
  }),
  z.strictObject({ test: z.literal("volts"), ...common, red: pinOrPost, black: pinOrPost, volts }),
  z.strictObject({ test: z.literal("ohms"), ...common, at: plug, from: label, ohms: labelled(ohms) }),
  z.strictObject({
    test: z.literal("amps"),
    ...common,
    around: pinOfPlug,
    amps: z.number().min(-10_000).max(10_000),
  }),
  z.strictObject({
    test: z.literal("airflow"),
    ...common,
    at: z.enum(["motor", "motor-2"]).optional(),
    leads: z.literal(true).optional(),
    /** A plug that is pulled for it. */
    unplugged: plug.optional(),
    pattern: z.enum(patterns).optional(),
    seen: z.enum(airflowSeen),
  }),
  z.strictObject({
    test: z.literal("lampload"),
    ...common,
    lampFor: z.enum(["motor-plug", "motor-plug-2"]),
    seen: z.enum(lamploadSeen),
  }),
  z.strictObject({
    test: z.literal("wires"),
    ...common,
    at: plug,
    seen: labelled(
      z
        .string()
        .regex(
          /^([A-Z]{2}(\/[A-Z]{2})?[ ,]+)?(thick|thin)$/,
          "expected a colour code and a size such as BK thick, or the size alone",
        ),
    ),
  }),
  z.strictObject({ test: z.literal("look"), ...common, at: anyPlace, seen: z.enum(inspectSeen) }),
  z.strictObject({
    test: z.literal("spin"),
    ...common,
    at: z.enum(["motor", "motor-2"]),
    seen: z.enum(spinFeels),
  }),
  z.strictObject({
    test: z.literal("listen"),
    ...common,
    ventCovered: z.boolean().optional(),
    seen: z.enum(noises),
    followsSpeed: z.boolean().optional(),
  }),
  z.strictObject({ test: z.literal("smell"), ...common, seen: z.enum(smellSeen) }),
  z.strictObject({ test: z.literal("history"), ...common, of: z.enum(historyOf), seen: z.enum(historySeen) }),
  z.strictObject({ test: z.literal("tap"), ...common, at: anyPlace, seen: z.enum(tapSeen) }),
  z.strictObject({ test: z.literal("swap"), ...common, at: z.literal("relay"), seen: z.enum(swapSeen) }),
  z.strictObject({
    test: z.literal("ripple"),
    ...common,
    at: z.enum(["motor", "motor-2"]),
    seen: z.enum(rippleSeen),
  }),
]);
export type PlaceReading = z.infer<typeof placeReadingSchema>;

/** Whether a reading says that the blower runs with its switch off. */
export const blowsWhenOff = (reading: PlaceReading): boolean =>
  reading.test === "airflow" &&
  reading.setting === "0" &&
  reading.seen !== "none" &&
  !reading.leads &&
  !reading.unplugged;

/** The place that a reading says the vehicle does not have; none for any other reading. */
export const absentPlace = (reading: PlaceReading): Place[] =>
  "absent" in reading ? ["at" in reading ? reading.at : reading.lampFor] : [];

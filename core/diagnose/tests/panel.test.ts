// A panel of complaints: where an experienced technician goes first, and why (common practice, no source), compared with
// the first visit offered.
import { describe, expect, test } from "@jest/globals";
import type { PartKind } from "../../circuit/parts/index";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { diagnose } from "../diagnose";
import { placeOf, placesNeeded } from "./access";

type Air = "none" | "weak" | "normal" | "strong";

interface Complaint {
  readonly name: string;
  /** What each running speed does, from the weakest, given how many there are; null if the circuit cannot do it. */
  readonly speeds: (place: number, count: number) => Air;
  readonly off?: Air;
  readonly also?: (top: string) => readonly Reading[];
  readonly pattern?: "only-hot";
  /** Circuits it is for: those with a pack, those with an electronic control, or all. */
  readonly circuits: "all" | "pack" | "control";
  /** Where the technician goes first: to a part of one of these kinds, or `seat`. */
  readonly first: readonly PartKind[] | "seat";
  readonly why: string;
}

const complaints: readonly Complaint[] = [
  {
    name: "dead on every speed",
    speeds: () => "none",
    circuits: "all",
    first: ["motor", "fuse"],
    why: "Feed and ground at the motor's plug halve the circuit; the fuse is the other cheap beginning.",
  },
  {
    name: "a squeal that follows the speed, all speeds normal",
    speeds: () => "normal",
    also: (setting) => [
      { test: "listen", heard: true, key: "run", setting, seen: "squeal", followsSpeed: true },
    ],
    circuits: "all",
    first: "seat",
    why: "Hear it for oneself before anything comes off. No voltage makes a bearing squeal.",
  },
  {
    name: "only the top speed blows",
    speeds: (place, count) => (place === count - 1 ? "normal" : "none"),
    circuits: "pack",
    first: ["resistor"],
    why: "The top speed goes round the pack: its link, its coils or its plug, nine times in ten.",
  },
  {
    name: "only the lowest speed is dead",
    speeds: (place) => (place === 0 ? "none" : "normal"),
    circuits: "pack",
    first: ["resistor"],
    why: "One coil or one tap; the pack's plug shows both the coil and what the switch sends.",
  },
  {
    name: "only the top speed is dead",
    speeds: (place, count) => (place === count - 1 ? "none" : "normal"),
    circuits: "pack",
    first: ["selector", "relay", "fuse"],
    why: "Motor and pack work. What only the top speed uses is a contact of the switch, or a relay with its fuse.",
  },
  {
    name: "it never stops, not even with the key out",
    speeds: (place, count) => (place === count - 1 ? "normal" : "strong"),
    off: "strong",
    also: (setting) => [{ test: "airflow", heard: true, key: "off", setting, seen: "strong" }],
    circuits: "control",
    first: ["module"],
    why: "Only something that bypasses the switch does that: first of all the control's output stage.",
  },
  {
    name: "it quits when hot",
    speeds: () => "none",
    pattern: "only-hot",
    circuits: "control",
    first: ["module", "motor"],
    why: "While it is dead: feed, ground and command at the control's plug, and its output.",
  },
];

/** Why another first visit is as good, by the title of the complaint for which one is offered. */
const behindRelay =
  "The control is fed through a relay that the key opens, so running with the key out contradicts it: see it for oneself, from the seat.";
const differs: Readonly<Record<string, string>> = {
  "only the top speed is dead, dunlin-rear-blower":
    "The rear blower's two speeds tell from the seat, in half a minute, whether what both blowers share is good.",
  "it never stops, not even with the key out, dotterel-linear-high": behindRelay,
  "it never stops, not even with the key out, dunlin-pwm-high": behindRelay,
  "it never stops, not even with the key out, siskin-linear-low": behindRelay,
};

function readingsOf(
  { speeds, off = "none", also, pattern }: Complaint,
  settings: readonly string[],
): Reading[] {
  const [still = "off", ...running] = settings;
  const told = heard({
    [still]: off,
    ...Object.fromEntries(running.map((setting, place) => [setting, speeds(place, running.length)])),
  });
  const varying = told.map((reading) =>
    pattern && reading.setting !== still ? ({ ...reading, pattern } as Reading) : reading,
  );
  return [...varying, ...(also?.(running.at(-1) ?? still) ?? [])];
}

const cases = complaints.flatMap((complaint) =>
  shippedIds.flatMap((id) => {
    const { circuit } = shippedEngine(id).netlist;
    const has = (kind: PartKind): boolean => circuit.parts.some((part) => part.kind === kind);
    const fits = complaint.circuits === "all" || has(complaint.circuits === "pack" ? "resistor" : "module");
    // With two running speeds the lowest alone is the same complaint as the top alone.
    return fits && !(complaint.circuits === "pack" && circuit.settings.length < 4)
      ? [{ complaint, id, title: `${complaint.name}, ${id}` }]
      : [];
  }),
);

describe("the panel", () => {
  test("has at least forty complaints", () => expect(cases.length).toBeGreaterThanOrEqual(40));

  test.each(cases)("$title", ({ complaint, id, title }) => {
    const compiled = shippedEngine(id);
    const { circuit } = compiled.netlist;
    const result = diagnose(compiled, readingsOf(complaint, circuit.settings));
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    const visit = result.value.next.filter((own) => own.visit);
    const place = visit[0]?.visit?.place ?? null;
    const { first } = complaint;
    const wanted =
      first === "seat"
        ? [null]
        : circuit.parts.filter(({ kind }) => first.includes(kind)).map((part) => placeOf(compiled, part.id));
    const agrees = wanted.includes(place);
    expect({ title, place, agrees }).toEqual({ title, place, agrees: differs[title] === undefined });
    for (const { test: own } of visit) expect([...placesNeeded(compiled, own), null]).toContain(place);
  });
});

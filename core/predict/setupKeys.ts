import { z } from "zod";
import { keyPositions } from "../circuit/parts/ignition";
import { states, temperatures } from "./moment";

/** A point's name: `X5:2`, `M1.+`, `W9/to`. */
export const pointName = z.string().min(1).max(64);
/** The id of a part, a plug or a wire. */
export const thingId = z.string().max(32);

/** Keys of the set-up, common to every test; whether a reading was only told; and the time it was taken. */
export const setupKeys = {
  key: z.enum(keyPositions).optional(),
  engine: z.boolean().optional(),
  setting: z.string().max(16).optional(),
  selectors: z.record(z.string().max(32), z.string().max(16)).optional(),
  unplugged: z.array(z.string().max(32)).max(50).optional(),
  bridged: z
    .array(z.tuple([pointName, pointName]))
    .max(20)
    .optional(),
  lampFor: thingId.optional(),
  heard: z.boolean().optional(),
  state: z.enum(states).optional(),
  temperature: z.enum(temperatures).optional(),
  minutesIn: z.number().min(0).max(600).optional(),
};

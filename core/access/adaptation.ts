import type { WorkDone } from "../labour/workDone";
import type { StepCaution } from "./stepCaution";

/** Work that makes a part fit although it differs from the old one, and work on the car's own plugs and wires. */
export const adaptationWorks = [
  "splice-leads",
  "lengthen-leads",
  "mend-wire",
  "fit-lead",
  "carry-lead",
  "file-holes",
  "file-corner",
  "cut-key",
  "cut-nose",
  "close-vent",
  "carry-tube",
  "carry-gasket",
  "leave-screw-out",
  "press-wheel-over",
  "carry-wheel-over",
  "slide-wheel-over",
  "carry-clip",
  "fit-ring",
] as const;
export type AdaptationWork = (typeof adaptationWorks)[number];

/** One adaptation of a new part. */
export interface Adaptation {
  readonly work: AdaptationWork;
  /** Minutes of all of it. */
  readonly minutes: number;
  /** Leads, holes or screws it is done to; 1 if it is done once. */
  readonly count: number;
}

/** What is the same about an adaptation wherever it is done. */
export interface AdaptationFacts {
  /** Minutes for each lead, hole or screw, or for the whole if it is done once. */
  readonly minutesEach: number;
  readonly tools: readonly string[];
  readonly cautions: readonly StepCaution[];
  /** It is done at the car's wires, so the battery's negative is disconnected first. */
  readonly needsBatteryOff: boolean;
  /** What the work list calls it. */
  readonly done: WorkDone;
}

const onTheBench = { cautions: [], needsBatteryOff: false, done: "adapted" } as const;
const carried = { ...onTheBench, done: "carried-over" } as const;

/** Minutes, tools and cautions of each adaptation (common practice, no source). */
export const adaptationFacts: Readonly<Record<AdaptationWork, AdaptationFacts>> = {
  "splice-leads": {
    minutesEach: 5,
    tools: ["wire stripper", "crimping tool", "heat-shrink and hot air"],
    cautions: ["bare-positive"],
    needsBatteryOff: true,
    done: "spliced",
  },
  "lengthen-leads": {
    minutesEach: 5,
    tools: ["wire stripper", "crimping tool", "heat-shrink and hot air"],
    cautions: [],
    needsBatteryOff: false,
    done: "adapted",
  },
  "mend-wire": {
    minutesEach: 10,
    tools: ["wire stripper", "crimping tool", "heat-shrink and hot air"],
    cautions: ["bare-positive"],
    needsBatteryOff: true,
    done: "repaired",
  },
  "fit-lead": { ...onTheBench, minutesEach: 1, tools: [], done: "fitted" },
  "carry-lead": { ...carried, minutesEach: 2, tools: [] },
  "file-holes": { ...onTheBench, minutesEach: 6, tools: ["round file"] },
  "file-corner": { ...onTheBench, minutesEach: 4, tools: ["flat file"] },
  "cut-key": { ...onTheBench, minutesEach: 4, tools: ["side cutters", "flat file"], cautions: ["knife"] },
  "cut-nose": { ...onTheBench, minutesEach: 5, tools: ["knife", "sealant"], cautions: ["knife"] },
  "close-vent": { ...onTheBench, minutesEach: 3, tools: ["sealing cap or tube"] },
  "carry-tube": { ...carried, minutesEach: 2, tools: [] },
  "carry-gasket": { ...carried, minutesEach: 2, tools: [] },
  "leave-screw-out": { ...onTheBench, minutesEach: 4, tools: [] },
  "press-wheel-over": { ...carried, minutesEach: 10, tools: ["puller", "vice"] },
  "carry-wheel-over": { ...carried, minutesEach: 4, tools: ["circlip pliers or socket"] },
  "slide-wheel-over": { ...carried, minutesEach: 3, tools: [] },
  "carry-clip": { ...carried, minutesEach: 1, tools: [] },
  "fit-ring": {
    minutesEach: 12,
    tools: ["Phillips screwdriver", "sealing strip"],
    cautions: [],
    needsBatteryOff: false,
    done: "fitted",
  },
};

/** An adaptation done once, or to a number of leads, holes or screws. */
export const adaptation = (work: AdaptationWork, count = 1): Adaptation => ({
  work,
  minutes: adaptationFacts[work].minutesEach * count,
  count,
});

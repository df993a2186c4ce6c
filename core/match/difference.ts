import { type Adaptation, type AdaptationWork, adaptation } from "../access/adaptation";
import type { PartDescription } from "./partDescription";
import type { Mount } from "./partFeature";

/** The consequence of a difference between the old and the new part. */
export type Judgement = "harmless" | "adaptable" | "wrong";

export type Wheel = NonNullable<PartDescription["wheel"]>;

interface WheelSize {
  readonly outerMm: number;
  readonly heightMm: number;
}

interface OhmsLists {
  /** Ohms of the old part's elements; null if only the circuit has them. */
  readonly oldOhms: readonly number[] | null;
  readonly freshOhms: readonly number[];
}

type Plate = Pick<NonNullable<PartDescription["plate"]>, "ratedVolts" | "ratedAmps">;

interface Plates {
  readonly old: Plate;
  readonly fresh: Plate;
}

interface FuseLoad {
  readonly fuse: string;
  readonly amps: number;
  readonly ratedAmps: number;
}

/** A difference, with the figures its reason quotes. */
export type DifferenceFinding =
  | { readonly code: "other-kind"; readonly old: string; readonly fresh: string }
  | { readonly code: "other-climate"; readonly old: string; readonly fresh: string }
  | {
      readonly code: "pins-by-splice" | "pins-by-lead" | "pins-do-not-fit";
      readonly oldPins: number;
      readonly freshPins: number;
    }
  | {
      readonly code: "tab-by-splice" | "tab-by-lead" | "tab-turned" | "plug-elsewhere";
      readonly old: string;
      readonly fresh: string;
    }
  | { readonly code: "tail-longer" | "tail-shorter"; readonly oldMm: number; readonly freshMm: number }
  | { readonly code: "lead-missing" | "lead-not-needed" }
  | { readonly code: "ring-kit" | "other-mount"; readonly old: Mount; readonly fresh: Mount }
  | { readonly code: "gasket-missing" | "gasket-added" }
  | { readonly code: "more-screws" | "fewer-screws"; readonly old: number; readonly fresh: number }
  | {
      readonly code: "holes-differ" | "holes-mirrored";
      readonly oldHoles: number;
      readonly freshHoles: number;
    }
  | {
      readonly code: "holes-within-play" | "holes-to-file" | "holes-too-far";
      readonly oldHoles: number;
      readonly offMm: number;
      readonly playMm: number;
    }
  | { readonly code: "vent-missing" | "vent-added" | "drain-missing" | "drain-added" }
  | {
      readonly code: "cut-out-added" | "cut-out-missing" | "key-gone" | "key-in-the-way";
      readonly old: string;
      readonly fresh: string;
    }
  | ({ readonly code: "other-terminals" } & OhmsLists)
  | ({
      readonly code: "speed-changes";
      readonly setting: string;
      /** Airflow gained at that speed as a share of before; negative if lost. */
      readonly airflowChange: number;
    } & OhmsLists)
  | ({
      readonly code: "coil-hotter";
      readonly coil: string;
      readonly watts: number;
      readonly wasWatts: number;
    } & OhmsLists)
  | ({ readonly code: "fuse-blows" | "fuse-overloaded" } & Plates & FuseLoad)
  | ({
      readonly code: "draw-fine";
      readonly setting: string;
      readonly amps: number;
      readonly wasAmps: number;
    } & Plates)
  | {
      readonly code: "motor-speed";
      readonly setting: string /** Share of before. */;
      readonly airflow: number;
    }
  | { readonly code: "turns-backwards"; readonly old: string; readonly fresh: string }
  | {
      readonly code: "wheel-too-big" | "wheel-too-small" | "wheel-runs-free";
      readonly old: WheelSize;
      readonly fresh: WheelSize;
    }
  | { readonly code: "other-shaft"; readonly old: string; readonly fresh: string }
  | {
      readonly code: "other-hold";
      readonly old: NonNullable<Wheel["hold"]>;
      readonly fresh: NonNullable<Wheel["hold"]>;
    }
  | { readonly code: "bore-loose" | "bore-tight"; readonly oldMm: number; readonly freshMm: number }
  | { readonly code: "wheel-missing" | "clip-missing" };

/** One difference with its judgement; an adaptable one has the work that makes the part fit. */
export interface PartDifference {
  /** The feature that differs; an override is stored under it. */
  readonly feature: string;
  readonly judgement: Judgement;
  readonly finding: DifferenceFinding;
  readonly adaptation: Adaptation | null;
}

/** A difference that can be accepted as it is. */
export const harmless = (feature: string, finding: DifferenceFinding): PartDifference => ({
  feature,
  judgement: "harmless",
  finding,
  adaptation: null,
});

/** A difference that rules the part out. */
export const wrong = (feature: string, finding: DifferenceFinding): PartDifference => ({
  feature,
  judgement: "wrong",
  finding,
  adaptation: null,
});

/** A difference that work makes good. */
export const adaptable = (
  feature: string,
  finding: DifferenceFinding,
  work: AdaptationWork,
  count = 1,
): PartDifference => ({ feature, judgement: "adaptable", finding, adaptation: adaptation(work, count) });

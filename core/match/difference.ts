import type { PartDescription } from "./partDescription";

/** What a difference between the old part and the new means. */
export type Judgement = "harmless" | "adaptable" | "wrong";

type Wheel = NonNullable<PartDescription["wheel"]>;

interface OhmsLists {
  /** Ohms of the old part's elements; null where only the circuit knows them. */
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

/** What was found to differ, with the figures the reason quotes. */
export type DifferenceFinding =
  | { readonly code: "other-kind"; readonly old: string; readonly fresh: string }
  | { readonly code: "other-climate"; readonly old: string; readonly fresh: string }
  | {
      readonly code: "pins-by-splice" | "pins-do-not-fit";
      readonly oldPins: number;
      readonly freshPins: number;
    }
  | { readonly code: "tab-on-new-plug" | "tab-turned"; readonly old: string; readonly fresh: string }
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
  | { readonly code: "corner-gone" | "corner-in-the-way"; readonly old: string; readonly fresh: string }
  | ({ readonly code: "other-terminals" } & OhmsLists)
  | ({
      readonly code: "speed-changes";
      readonly setting: string;
      /** Airflow gained on that speed as a share of before; below 0 where it is lost. */
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
      readonly old: Wheel;
      readonly fresh: Wheel;
    }
  | { readonly code: "other-shaft"; readonly old: string; readonly fresh: string }
  | { readonly code: "bore-loose" | "bore-tight"; readonly oldMm: number; readonly freshMm: number }
  | { readonly code: "press-wheel-over" | "carry-wheel-over" };

/** One difference, judged; adaptable ones with the minutes of the work that makes it good. */
export interface PartDifference {
  /** Which feature differs; an override is kept under it. */
  readonly feature: string;
  readonly judgement: Judgement;
  readonly finding: DifferenceFinding;
  /** Minutes of work; 0 where there is nothing to do. */
  readonly workMinutes: number;
}

/** A difference that can be accepted as it is. */
export const harmless = (feature: string, finding: DifferenceFinding): PartDifference => ({
  feature,
  judgement: "harmless",
  finding,
  workMinutes: 0,
});

/** A difference that sends the part back. */
export const wrong = (feature: string, finding: DifferenceFinding): PartDifference => ({
  feature,
  judgement: "wrong",
  finding,
  workMinutes: 0,
});

/** A difference that some work makes good, in minutes (common practice, no source). */
export const adaptable = (
  feature: string,
  finding: DifferenceFinding,
  workMinutes: number,
): PartDifference => ({ feature, judgement: "adaptable", finding, workMinutes });

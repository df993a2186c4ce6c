import type { ProofKind } from "../diagnose/proof/proofStep";
import type { Reading, Test } from "../predict/reading";
import type { LampWord } from "../solve/tungstenLamp";

/** A possible root cause of a burnt pack, with the motor's current. */
export interface KillerOffered {
  readonly id: "tight" | "filter" | "brushes" | "ground";
  readonly amps: number;
}

/** What an exercise asks, with every figure that its question and explanation quote. */
export type Asked =
  | {
      readonly about: "working-speed";
      readonly setting: string;
      readonly carrying: readonly { readonly id: string; readonly amps: number }[];
      readonly idle: readonly string[];
    }
  | {
      readonly about: "dead-speeds";
      readonly alive: string;
      readonly right: string;
      readonly wrong: readonly string[];
    }
  | {
      readonly about: "light";
      readonly setting: string;
      readonly probe: string;
      readonly toFeed: boolean;
      readonly called: LampWord;
      readonly floats: boolean;
      readonly volts: number;
      readonly ohms: number;
    }
  | {
      readonly about: "drop-under-load";
      readonly wire: string;
      readonly ends: readonly [string, string];
      readonly setting: string;
      readonly ohms: number;
      readonly amps: number;
      readonly badVolts: number;
      readonly soundVolts: number;
    }
  | {
      readonly about: "drop-without-load";
      readonly wire: string;
      readonly ends: readonly [string, string];
      readonly plug: string;
      readonly setting: string;
      readonly ohms: number;
      readonly loadedVolts: number;
    }
  | {
      readonly about: "ghost-volts";
      readonly plug: string;
      readonly pin: string;
      readonly meterVolts: number;
      readonly called: LampWord;
      readonly ohms: number;
    }
  | {
      readonly about: "ground-off";
      readonly ground: string;
      readonly pin: string;
      readonly setting: string;
      readonly toFeed: boolean;
      readonly called: LampWord;
      readonly volts: number;
    }
  | {
      readonly about: "humps-a-turn";
      readonly bars: number;
      readonly poles: number;
      readonly perTurn: number;
    }
  | {
      readonly about: "rpm-from-humps";
      readonly bars: number;
      readonly poles: number;
      readonly perTurn: number;
      readonly hertz: number;
      readonly rpm: number;
    }
  | {
      readonly about: "killer";
      readonly setting: string;
      readonly healthyAmps: number;
      readonly ground: string | null;
      readonly offered: readonly KillerOffered[];
    }
  | {
      readonly about: "moved-and-starts";
      readonly at: string;
      readonly isMotor: boolean;
      readonly setting: string;
      readonly part: string;
      readonly pBefore: number;
      readonly pAfter: number;
    }
  | {
      readonly about: "command-volts";
      readonly head: string;
      readonly module: string;
      readonly point: string;
      readonly range: readonly [number, number];
      readonly setting: string;
      readonly volts: number;
    }
  | {
      readonly about: "same-visit";
      readonly place: string;
      readonly placeMinutes: number;
      /** Minutes from there, with getting to another place. */
      readonly offered: readonly { readonly id: string; readonly test: Test; readonly minutes: number }[];
      readonly right: string;
    }
  | {
      readonly about: "proof";
      /** The one speed that blows; null if none does. */
      readonly alive: string | null;
      readonly part: string;
      readonly says: ProofKind;
      /** Readings, and how likely the part is after each. */
      readonly offered: readonly {
        readonly id: string;
        readonly reading: Reading;
        readonly p: number;
        readonly proves: boolean;
      }[];
    }
  | {
      readonly about: "cleared-by-command";
      readonly head: string;
      readonly module: string;
      readonly point: string;
      readonly setting: string;
      readonly volts: number;
      readonly left: readonly { readonly part: string; readonly p: number }[];
    };

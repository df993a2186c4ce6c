import { humpsPerTurn } from "../motor/commutator";
import type { Noise } from "../motor/mechanicalMode";

/** The components of a blower's sound: tones, hiss and knocks, with loudness as shares of full. */
export interface SoundRecipe {
  readonly tones: readonly {
    readonly hertz: number;
    readonly loud: number;
    readonly wave: "sine" | "triangle" | "sawtooth";
    /** Modulation frequency in hertz; 0 if it is steady. */
    readonly beatHertz: number;
  }[];
  /** The air's hiss, by its centre frequency. */
  readonly hiss: { readonly hertz: number; readonly loud: number } | null;
  /** A knock once per turn. */
  readonly blowsHertz: number | null;
}

const usualBlades = 40;
const usualBars = 12;
/** Rpm at which the air is loudest. */
const loudestRpm = 3600;
const stillRpm = 60;

/**
 * The sound of a blower at a speed with a noise: blade pass and air from the fan, the hum of the commutation, and the
 * noise itself (common practice, no source: a squeal is a few kilohertz, a rumble beats once per turn, debris knocks
 * once per turn, a whistle keeps its pitch, a scrape and a grind come and go with each turn, a buzz hums).
 */
export function soundRecipe(rpm: number, noise: Noise): SoundRecipe {
  if (rpm < stillRpm) return { tones: [], hiss: null, blowsHertz: null };
  const turns = rpm / 60;
  const level = Math.min(1, rpm / loudestRpm);
  const tone = (
    hertz: number,
    loud: number,
    wave: "sine" | "triangle" | "sawtooth" = "sine",
    beatHertz = 0,
  ) => ({ hertz, loud, wave, beatHertz });
  return {
    tones: [
      tone(turns * usualBlades, 0.05 * level),
      tone(turns * humpsPerTurn(usualBars, 2), 0.06 * level, "triangle"),
      ...(noise === "squeal" ? [tone(1900 + 12 * turns, 0.16, "sawtooth", 5)] : []),
      ...(noise === "rumble"
        ? [tone(turns, 0.4, "triangle", turns), tone(2.6 * turns, 0.25, "triangle", turns)]
        : []),
      ...(noise === "whistle" ? [tone(3100, 0.1)] : []),
      ...(noise === "scrape" ? [tone(640 + 4 * turns, 0.16, "sawtooth", turns)] : []),
      ...(noise === "grind" ? [tone(3.3 * turns, 0.3, "sawtooth", 2 * turns)] : []),
      ...(noise === "buzz" ? [tone(140, 0.14, "sawtooth")] : []),
    ],
    hiss: { hertz: 350 + 900 * level, loud: 0.25 * level * level },
    blowsHertz: noise === "tick" ? turns : null,
  };
}

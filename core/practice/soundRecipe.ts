import { humpsPerTurn } from "../motor/commutator";
import type { Noise } from "../motor/mechanicalMode";

/** What makes up the sound of a blower: tones, hiss and blows, loudness as shares of full. */
export interface SoundRecipe {
  readonly tones: readonly {
    readonly hertz: number;
    readonly loud: number;
    readonly wave: "sine" | "triangle" | "sawtooth";
    /** Rises and falls so often; 0 where it is steady. */
    readonly beatHertz: number;
  }[];
  /** The air's hiss, by the middle of its band. */
  readonly hiss: { readonly hertz: number; readonly loud: number } | null;
  /** Something that strikes once a turn. */
  readonly blowsHertz: number | null;
}

const usualBlades = 40;
const usualBars = 12;
/** Turns a minute at which the air is as loud as it gets. */
const loudestRpm = 3600;
const stillRpm = 60;

/**
 * The sound of a blower at a speed with a noise in it: blade pass and air by the fan, the hum of the commutation, and on
 * top what the noise is made of (common practice, no source: a squeal lies at a few kilohertz, a rumble beats once a turn,
 * debris strikes once a turn, a whistle keeps its pitch).
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
    ],
    hiss: { hertz: 350 + 900 * level, loud: 0.25 * level * level },
    blowsHertz: noise === "tick" ? turns : null,
  };
}

import type { Noise } from "../motor/mechanicalMode";

/** The noises a recording tells apart; an ear knows more. */
export const soundNoises = ["quiet", "squeal", "rumble", "tick", "whistle"] as const satisfies Noise[];
export type SoundNoise = (typeof soundNoises)[number];

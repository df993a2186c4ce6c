/** How a motor feels when its wheel is turned by hand. */
export const spinFeels = ["free", "rough", "stiff", "seized"] as const;
export type SpinFeel = (typeof spinFeels)[number];

/** The noises a running blower can make. */
export const noises = ["quiet", "squeal", "rumble", "tick", "whistle"] as const;
export type Noise = (typeof noises)[number];
/** Odds of each noise, in the order of `noises`. */
export type NoiseOdds = readonly [
  quiet: number,
  squeal: number,
  rumble: number,
  tick: number,
  whistle: number,
];

/**
 * The effects of a motor's mechanical fault: extra drag as a share of the rated torque, fan torque and airflow per rpm
 * as shares of healthy, and the odds of each feel by hand and each noise while running.
 */
export interface MechanicalMode {
  readonly dragShare: number;
  readonly fanTimes: number;
  readonly airflowTimes: number;
  readonly spin: Readonly<Record<SpinFeel, number>>;
  readonly noise: NoiseOdds;
}

const feel = (free: number, rough: number, stiff: number, seized: number) => ({
  free,
  rough,
  stiff,
  seized,
});

/** Feel by hand of a mechanically sound motor. */
export const healthySpin = feel(0.93, 0.04, 0.025, 0.005);

/**
 * The mechanical modes. Drag, airflow and feel are judgements (common practice, no source); the electrical
 * consequences are computed from them.
 */
export const mechanicalModes: Readonly<Record<string, MechanicalMode>> = {
  "wheel-loose": {
    dragShare: 0,
    fanTimes: 0.05,
    airflowTimes: 0.03,
    spin: feel(0.8, 0.15, 0.04, 0.01),
    noise: [0.42, 0.05, 0.25, 0.25, 0.03],
  },
  debris: {
    dragShare: 0.15,
    fanTimes: 1,
    airflowTimes: 0.9,
    spin: feel(0.15, 0.65, 0.18, 0.02),
    noise: [0.1, 0.05, 0.12, 0.7, 0.03],
  },
  // Dry, it squeals long before it slows the lowest speed.
  "bearing-dry": {
    dragShare: 0.08,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.2, 0.25, 0.53, 0.02),
    noise: [0.08, 0.73, 0.08, 0.03, 0.08],
  },
  "bearing-worn": {
    dragShare: 0.08,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.2, 0.68, 0.1, 0.02),
    noise: [0.1, 0.08, 0.75, 0.05, 0.02],
  },
  unbalanced: {
    dragShare: 0,
    fanTimes: 1,
    airflowTimes: 0.98,
    spin: feel(0.75, 0.2, 0.04, 0.01),
    noise: [0.15, 0.02, 0.77, 0.05, 0.01],
  },
  // Air drawn through the motor's vent hole past a failing bearing: a finger over the hole silences it.
  "vent-whistle": {
    dragShare: 0,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.8, 0.12, 0.07, 0.01),
    noise: [0.15, 0.06, 0.02, 0.02, 0.75],
  },
};

/** Feel by hand of the modes that affect the winding or lock the shaft (common practice, no source). */
export const windingSpin: Readonly<Record<string, Readonly<Record<SpinFeel, number>>>> = {
  seized: feel(0.005, 0.015, 0.08, 0.9),
  tight: feel(0.08, 0.12, 0.75, 0.05),
  "shorted-turns": feel(0.55, 0.15, 0.28, 0.02),
};

/** Noise of a mechanically sound motor while it runs. */
export const healthyNoise: NoiseOdds = [0.92, 0.02, 0.025, 0.025, 0.01];

/** Noise of the modes that affect the winding (common practice, no source). */
export const windingNoise: Readonly<Record<string, NoiseOdds>> = {
  tight: [0.62, 0.16, 0.17, 0.03, 0.02],
  "shorted-turns": [0.75, 0.04, 0.15, 0.04, 0.02],
  "worn-brushes": [0.68, 0.12, 0.06, 0.12, 0.02],
  "fades-hot": [0.78, 0.08, 0.06, 0.06, 0.02],
};

/** Modes that show in feel, noise and air but not in the current, so they do not show in the circuit. */
export const isMechanical = (mode: string): boolean =>
  mode in mechanicalModes || mode === "filter-blocked" || mode === "duct-blocked" || mode === "iced";

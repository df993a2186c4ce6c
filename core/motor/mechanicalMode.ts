/** How a motor feels when its wheel is turned by hand. */
export const spinFeels = ["free", "rough", "stiff", "seized"] as const;
export type SpinFeel = (typeof spinFeels)[number];

/** The noises a running blower can make. */
export const noises = ["quiet", "squeal", "rumble", "tick", "whistle", "scrape", "grind", "buzz"] as const;
export type Noise = (typeof noises)[number];
/** Odds of each noise. */
export type NoiseOdds = Readonly<Record<Noise, number>>;

/** Odds of some noises; what they leave over is shared by the others. */
export function noiseOdds(named: Readonly<Partial<Record<Noise, number>>>): NoiseOdds {
  const left = 1 - Object.values(named).reduce((sum, own) => sum + own, 0);
  const each = left / noises.filter((noise) => named[noise] === undefined).length;
  return {
    quiet: each,
    squeal: each,
    rumble: each,
    tick: each,
    whistle: each,
    scrape: each,
    grind: each,
    buzz: each,
    ...named,
  };
}

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
    noise: noiseOdds({ quiet: 0.4, rumble: 0.2, tick: 0.2, scrape: 0.1 }),
  },
  debris: {
    dragShare: 0.15,
    fanTimes: 1,
    airflowTimes: 0.9,
    spin: feel(0.15, 0.65, 0.18, 0.02),
    noise: noiseOdds({ quiet: 0.1, tick: 0.58, scrape: 0.12, buzz: 0.07, rumble: 0.07 }),
  },
  // Dry, it squeals long before it slows the lowest speed.
  "bearing-dry": {
    dragShare: 0.08,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.2, 0.25, 0.53, 0.02),
    noise: noiseOdds({ quiet: 0.08, squeal: 0.68, whistle: 0.07, grind: 0.05, scrape: 0.05, rumble: 0.04 }),
  },
  "bearing-worn": {
    dragShare: 0.08,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.2, 0.68, 0.1, 0.02),
    noise: noiseOdds({ quiet: 0.1, rumble: 0.5, grind: 0.25, squeal: 0.06 }),
  },
  unbalanced: {
    dragShare: 0,
    fanTimes: 1,
    airflowTimes: 0.98,
    spin: feel(0.75, 0.2, 0.04, 0.01),
    noise: noiseOdds({ quiet: 0.15, rumble: 0.62, buzz: 0.13, tick: 0.05 }),
  },
  // Air drawn through the motor's vent hole past a failing bearing: a finger over the hole silences it.
  "vent-whistle": {
    dragShare: 0,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.8, 0.12, 0.07, 0.01),
    noise: noiseOdds({ quiet: 0.15, whistle: 0.74, squeal: 0.06 }),
  },
  // The wheel rubs on its housing.
  scrape: {
    dragShare: 0.08,
    fanTimes: 1,
    airflowTimes: 1,
    spin: feel(0.3, 0.5, 0.18, 0.02),
    noise: noiseOdds({ quiet: 0.08, scrape: 0.6, squeal: 0.1, grind: 0.08, rumble: 0.06, tick: 0.05 }),
  },
};

/** Feel by hand of the modes that affect the winding or lock the shaft (common practice, no source). */
export const windingSpin: Readonly<Record<string, Readonly<Record<SpinFeel, number>>>> = {
  seized: feel(0.005, 0.015, 0.08, 0.9),
  tight: feel(0.08, 0.12, 0.75, 0.05),
  "shorted-turns": feel(0.55, 0.15, 0.28, 0.02),
};

/** Noise of a mechanically sound motor while it runs. */
export const healthyNoise: NoiseOdds = noiseOdds({
  quiet: 0.92,
  squeal: 0.018,
  rumble: 0.018,
  tick: 0.018,
});

/** Noise of the modes that affect the winding (common practice, no source). */
export const windingNoise: Readonly<Record<string, NoiseOdds>> = {
  tight: noiseOdds({ quiet: 0.62, squeal: 0.15, rumble: 0.12, grind: 0.04 }),
  "shorted-turns": noiseOdds({ quiet: 0.75, rumble: 0.12, buzz: 0.04 }),
  "worn-brushes": noiseOdds({ quiet: 0.68, squeal: 0.1, tick: 0.08, scrape: 0.05 }),
  "fades-hot": noiseOdds({ quiet: 0.78, squeal: 0.06, rumble: 0.05, tick: 0.04 }),
};

/** Modes that show in feel, noise and air but not in the current, so they do not show in the circuit. */
export const isMechanical = (mode: string): boolean =>
  mode in mechanicalModes || mode === "filter-blocked" || mode === "duct-blocked" || mode === "iced";

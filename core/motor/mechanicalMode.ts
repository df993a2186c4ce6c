/** How a motor feels when its wheel is turned by hand. */
export const spinFeels = ["free", "rough", "stiff", "seized"] as const;
export type SpinFeel = (typeof spinFeels)[number];

/**
 * What a motor's mechanical fault does: extra drag as a share of the rated torque, the fan's torque
 * and the airflow per rpm as shares of healthy, and the odds of each feel by hand.
 */
export interface MechanicalMode {
  readonly dragShare: number;
  readonly fanTimes: number;
  readonly airflowTimes: number;
  readonly spin: Readonly<Record<SpinFeel, number>>;
}

const feel = (free: number, rough: number, stiff: number, seized: number) => ({
  free,
  rough,
  stiff,
  seized,
});

/** Hand-feel of a motor with nothing wrong mechanically. */
export const healthySpin = feel(0.93, 0.04, 0.025, 0.005);

/**
 * The mechanical modes. Drag, airflow and feel are judgements (common practice, no source); the
 * electrical consequences are computed from them.
 */
export const mechanicalModes: Readonly<Record<string, MechanicalMode>> = {
  "wheel-loose": { dragShare: 0, fanTimes: 0.05, airflowTimes: 0.03, spin: feel(0.8, 0.15, 0.04, 0.01) },
  debris: { dragShare: 0.15, fanTimes: 1, airflowTimes: 0.9, spin: feel(0.15, 0.65, 0.18, 0.02) },
  "bearing-dry": { dragShare: 0.25, fanTimes: 1, airflowTimes: 1, spin: feel(0.2, 0.25, 0.53, 0.02) },
  "bearing-worn": { dragShare: 0.08, fanTimes: 1, airflowTimes: 1, spin: feel(0.2, 0.68, 0.1, 0.02) },
  unbalanced: { dragShare: 0, fanTimes: 1, airflowTimes: 0.98, spin: feel(0.75, 0.2, 0.04, 0.01) },
};

/** Hand-feel of the modes that act on the winding or hold the shaft (common practice, no source). */
export const windingSpin: Readonly<Record<string, Readonly<Record<SpinFeel, number>>>> = {
  seized: feel(0.005, 0.015, 0.08, 0.9),
  tight: feel(0.08, 0.12, 0.75, 0.05),
  "shorted-turns": feel(0.55, 0.15, 0.28, 0.02),
};

/**
 * Properties of simulated vehicles, instruments and people: the simulator's own constants, separate from the engine's,
 * each of which `npm run bench:fleet -- --vary` changes.
 */
export interface World {
  /** Half width of the uniform spread of contacts, elements, windings, as a share of nominal. */
  readonly contactSpread: number;
  readonly elementSpread: number;
  readonly windingSpread: number;
  readonly fanSpread: number;
  /** Friction as a share of nominal: low and high. */
  readonly friction: readonly [number, number];
  /** Battery volts at rest: low and high. */
  readonly restVolts: readonly [number, number];
  /** Lamp volts above which the eye calls it bright, and dim: mean and half spread. */
  readonly brightVolts: readonly [number, number];
  readonly dimVolts: readonly [number, number];
  /** Airflow shares that separate none, weak and normal, and how far a hand misjudges. */
  readonly weakShare: number;
  readonly handError: number;
  readonly meterShare: number;
  readonly meterVolts: number;
  readonly clampShare: number;
  readonly clampAmps: number;
  /**
   * Probability that a measured reading is taken in the wrong place or written down wrong, and that a heard one is
   * wrong.
   */
  readonly slip: number;
  readonly heardSlip: number;
  /** Factor on every severity range. */
  readonly severity: number;
  /** How often eyes, ears and hands notice the signs of a failed thing. */
  readonly senses: number;
  /** True if a hand reaches only what a hand can reach; false if every point can be touched. */
  readonly realHands: boolean;
  /** Supply volts at which electronics drop out: low and high; null for the volts the circuit states. */
  readonly dropOutVolts: readonly [number, number] | null;
  /** Share of lamps on a stuttering circuit that are seen to flicker; the others glow dimly. */
  readonly flickerShare: number;
  /** Share of electrical faults that wait for heat, time, wet or bumps. */
  readonly comesAndGoes: number;
  /** Share of tests taken while what comes and goes is there, if people know that it does. */
  readonly whileFailing: number;
  /** How often people say that a symptom comes and goes, and of a test whether it was there then. */
  readonly timeSaid: number;
  /** How often they are right about a test. */
  readonly timeRight: number;
  /** True if faults beyond the catalogue are met too, and 2 % that nobody lists. */
  readonly beyondCatalogue: boolean;
  /** How often heat or water leaves a mark on the neighbour that eyes can find. */
  readonly neighbourMarks: number;
  /** True if someone had it apart recently and says so when asked. */
  readonly recentWork?: boolean;
}

export const usualWorld: World = {
  contactSpread: 0.5,
  elementSpread: 0.08,
  windingSpread: 0.07,
  fanSpread: 0.1,
  friction: [0.5, 1.8],
  restVolts: [12.25, 12.85],
  brightVolts: [9, 0.8],
  dimVolts: [3, 0.8],
  weakShare: 0.75,
  handError: 0.12,
  meterShare: 0.005,
  meterVolts: 0.02,
  clampShare: 0.03,
  clampAmps: 0.3,
  slip: 0.01,
  heardSlip: 0.02,
  severity: 1,
  senses: 0.75,
  realHands: false,
  dropOutVolts: null,
  flickerShare: 0.85,
  comesAndGoes: 0,
  whileFailing: 1,
  timeSaid: 0,
  timeRight: 1,
  beyondCatalogue: false,
  neighbourMarks: 0,
};

/** The trade as technicians meet it: real hands, electronics that stutter, faults that wait, damage that travels. */
export const harderWorld: World = {
  ...usualWorld,
  realHands: true,
  dropOutVolts: [5, 9],
  flickerShare: 0.5,
  comesAndGoes: 0.12,
  whileFailing: 0.75,
  timeSaid: 0.9,
  timeRight: 0.96,
  beyondCatalogue: true,
  neighbourMarks: 0.5,
};

/** Worlds in which all constants move together, away from the engine's: other vehicles, instruments, faults and habits. */
export const movedWorlds: Readonly<Record<string, World>> = {
  "worn vehicles and dim eyes": {
    ...harderWorld,
    contactSpread: 0.8,
    elementSpread: 0.13,
    windingSpread: 0.12,
    fanSpread: 0.18,
    friction: [0.7, 2.6],
    restVolts: [11.9, 12.6],
    brightVolts: [9.8, 1],
    dimVolts: [3.8, 1],
    dropOutVolts: [6, 9.5],
  },
  "poor instruments and clumsy hands": {
    ...harderWorld,
    weakShare: 0.68,
    handError: 0.2,
    meterShare: 0.012,
    meterVolts: 0.05,
    clampShare: 0.07,
    clampAmps: 0.5,
    slip: 0.015,
    heardSlip: 0.04,
    flickerShare: 0.3,
  },
  "milder faults that show less and are told worse": {
    ...harderWorld,
    severity: 0.7,
    senses: 0.55,
    comesAndGoes: 0.2,
    whileFailing: 0.6,
    timeSaid: 0.75,
    timeRight: 0.93,
    neighbourMarks: 0.3,
  },
};

/** One constant at a time changed from the engine's value, to show the effect of each. */
export const variations: Readonly<Record<string, Partial<World>>> = {
  "contacts twice as scattered": { contactSpread: 0.9 },
  "elements and windings twice as scattered": { elementSpread: 0.16, windingSpread: 0.14 },
  "fans a fifth off": { fanSpread: 0.2 },
  "friction up to three times": { friction: [0.8, 3] },
  "tired batteries": { restVolts: [11.8, 12.4] },
  "dim eyes": { brightVolts: [10.2, 0.8], dimVolts: [4.2, 0.8] },
  "weak called below 65 %": { weakShare: 0.65 },
  "clumsy hands": { handError: 0.22 },
  "poor meter and clamp": { meterShare: 0.015, meterVolts: 0.06, clampShare: 0.08, clampAmps: 0.6 },
  "slips three times as often": { slip: 0.03, heardSlip: 0.06 },
  "milder faults": { severity: 0.6 },
  "harsher faults": { severity: 1.8 },
  "eyes and ears half as telling": { senses: 0.4 },
};

/** A filament lamp by its rated point. */
export interface TungstenLamp {
  readonly ratedVolts: number;
  readonly ratedWatts: number;
}

export const testLight: TungstenLamp = { ratedVolts: 12, ratedWatts: 3 };
export const loadLamp: TungstenLamp = { ratedVolts: 12, ratedWatts: 55 };

/** Current goes as V^0.55: incandescent re-rating exponents of lighting handbooks (from memory). */
const currentExponent = 0.55;
/** A cold filament has about a thirteenth of the hot ohms (common practice, no source). */
const coldShare = 13;

export const ratedAmps = (lamp: TungstenLamp): number => lamp.ratedWatts / lamp.ratedVolts;

/** Amps through a lamp at a voltage of either sign: the re-rating law, capped by the cold filament. */
export function lampAmps(lamp: TungstenLamp, volts: number): number {
  const share = Math.abs(volts) / lamp.ratedVolts;
  const rated = ratedAmps(lamp);
  return Math.sign(volts) * rated * Math.min(coldShare * share, share ** currentExponent);
}

/** dI/dV of the lamp, in siemens; the cold conductance at and near zero volts. */
export function lampSiemens(lamp: TungstenLamp, volts: number): number {
  const share = Math.abs(volts) / lamp.ratedVolts;
  const hot = ratedAmps(lamp) / lamp.ratedVolts;
  if (coldShare * share <= share ** currentExponent) return hot * coldShare;
  return hot * currentExponent * share ** (currentExponent - 1);
}

/**
 * Volts a lamp gets from a source behind a resistance: V + R I(V) = E, by Newton: the lamp's
 * current is concave, so after the first step it climbs to the root from below.
 * @param openVolts what a meter would read there, either sign
 * @param seriesOhms resistance behind it; infinite gives 0
 */
export function lampVolts(lamp: TungstenLamp, openVolts: number, seriesOhms: number): number {
  const target = Math.abs(openVolts);
  if (!Number.isFinite(seriesOhms) || target < 1e-9) return 0;
  let volts = target;
  for (let round = 0; round < 40; round++) {
    const error = volts + seriesOhms * lampAmps(lamp, volts) - target;
    const step = error / (1 + seriesOhms * lampSiemens(lamp, volts));
    volts = Math.max(0, volts - step);
    if (Math.abs(step) < 1e-7) break;
  }
  return volts;
}

/** A filament lamp by its rated volts and watts. */
export interface TungstenLamp {
  readonly ratedVolts: number;
  readonly ratedWatts: number;
}

export const testLight: TungstenLamp = { ratedVolts: 12, ratedWatts: 3 };
export const loadLamp: TungstenLamp = { ratedVolts: 12, ratedWatts: 55 };

/** Current is proportional to V^0.55: incandescent re-rating exponents of lighting handbooks (from memory). */
const currentExponent = 0.55;
/** Ratio of a filament's hot to cold resistance, about thirteen (common practice, no source). */
const coldShare = 13;

/** Amps through a lamp at its rated volts. */
export const ratedAmps = (lamp: TungstenLamp): number => lamp.ratedWatts / lamp.ratedVolts;

/** Amps through a lamp at a voltage of either sign: the re-rating law, limited by the cold filament's resistance. */
export function lampAmps(lamp: TungstenLamp, volts: number): number {
  const share = Math.abs(volts) / lamp.ratedVolts;
  const rated = ratedAmps(lamp);
  return Math.sign(volts) * rated * Math.min(coldShare * share, share ** currentExponent);
}

/** dI/dV of the lamp in siemens; the cold conductance at and near zero volts. */
export function lampSiemens(lamp: TungstenLamp, volts: number): number {
  const share = Math.abs(volts) / lamp.ratedVolts;
  const hot = ratedAmps(lamp) / lamp.ratedVolts;
  if (coldShare * share <= share ** currentExponent) return hot * coldShare;
  return hot * currentExponent * share ** (currentExponent - 1);
}

/**
 * Volts across a lamp fed from a source through a resistance: V + R I(V) = E, by Newton's method. The lamp's current
 * is concave, so after the first step the iteration rises to the root from below.
 * @param openVolts open-circuit volts of either sign
 * @param seriesOhms resistance of the source; infinity gives 0
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

export type LampWord = "bright" | "dim" | "dark";

/** How an eye judges a lamp at some volts: bright above 9 V, dim above 3 V (common practice, no source). */
export const lampWord = (volts: number): LampWord => (volts > 9 ? "bright" : volts > 3 ? "dim" : "dark");

/** Below this series resistance, in ohms, two rounds of substitution come within a few hundredths of a volt. */
const fewOhms = 3;

/** A table of a lamp's current by its volts; the engine looks it up millions of times. */
const tableStep = 0.02;
const tableVolts = 40;
const tables = new Map<TungstenLamp, Float64Array>();

let last: { readonly lamp: TungstenLamp; readonly table: Float64Array } | null = null;

function tableOf(lamp: TungstenLamp): Float64Array {
  if (last?.lamp === lamp) return last.table;
  const table = tables.get(lamp) ?? makeTable(lamp);
  last = { lamp, table };
  return table;
}

function makeTable(lamp: TungstenLamp): Float64Array {
  const made = Float64Array.from({ length: tableVolts / tableStep + 2 }, (_, i) =>
    lampAmps(lamp, i * tableStep),
  );
  tables.set(lamp, made);
  return made;
}

/** `lampVolts` from the table, within a twentieth of a volt; used for the engine's predictions. */
export function roughLampVolts(lamp: TungstenLamp, openVolts: number, seriesOhms: number): number {
  const target = Math.abs(openVolts);
  if (!Number.isFinite(seriesOhms) || target < 1e-9) return 0;
  const table = tableOf(lamp);
  if (seriesOhms < fewOhms) {
    const at = (volts: number): number =>
      table[Math.floor(Math.min(tableVolts, volts) / tableStep)] as number;
    const first = Math.max(0, target - seriesOhms * at(target));
    return Math.max(0, target - seriesOhms * at(first));
  }
  let volts = target;
  for (let round = 0; round < 40; round++) {
    const place = Math.min(tableVolts, volts) / tableStep;
    const index = Math.floor(place);
    const amps = table[index] as number;
    const slope = (table[index + 1] as number) - amps;
    const error = volts + seriesOhms * (amps + slope * (place - index)) - target;
    const step = error / (1 + (seriesOhms * slope) / tableStep);
    volts = Math.max(0, volts - step);
    if (Math.abs(step) < 1e-5) break;
  }
  return volts;
}

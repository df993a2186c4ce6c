import type { Range } from "@core/diagnose/tests/forecast";
import type { TestName } from "@core/predict/observations/index";

/** Displays below these count as nothing: volts and amps (judgement). */
const nothingVolts = 0.6;
const nothingAmps = 0.5;
/** Share by which a sound display may differ and still be as it should be (judgement). */
const soundShare = 0.2;

const within = ({ low, high }: Range, least: number, most: number): boolean => low >= least && high <= most;

function voltsWords(range: Range, fullVolts: number): string | null {
  const size: Range =
    range.high <= 0
      ? { low: -range.high, high: -range.low }
      : { low: Math.max(0, range.low), high: range.high };
  if (size.high <= nothingVolts) return "nothing";
  if (size.low >= 0.85 * fullVolts) return "battery voltage";
  if (within(size, 0.38 * fullVolts, 0.62 * fullVolts)) return "about half";
  if (size.high <= 0.5 * fullVolts) return "less than half";
  return size.low >= 0.5 * fullVolts ? "more than half" : null;
}

function besideSound({ low, high }: Range, sound: number): string | null {
  if (low >= sound * (1 - soundShare) && high <= sound * (1 + soundShare)) return "as it should be";
  if (high < sound) return "too low";
  return low > sound ? "too high" : null;
}

/**
 * A display's range in a word that goes before its figures: `battery voltage`, `about half`, `too high`.
 * @param sound what a vehicle without a fault shows
 * @param fullVolts the battery's voltage
 * @returns null where no word says it
 */
export function rangeWords(test: TestName, range: Range, sound: number, fullVolts: number): string | null {
  if (test === "volts") return voltsWords(range, fullVolts);
  if (!Number.isFinite(range.low)) return "open";
  if (test === "amps" && Math.max(Math.abs(range.low), Math.abs(range.high)) <= nothingAmps)
    return "no current";
  if (test === "ohms" && !Number.isFinite(sound)) return "shorted";
  return besideSound(range, sound);
}

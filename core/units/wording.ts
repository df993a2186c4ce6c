/** Joins words for a sentence: `a`, `a and b`, `a, b and c`. */
export function listed(words: readonly string[], last = "and"): string {
  if (words.length < 2) return words.join("");
  return `${words.slice(0, -1).join(", ")} ${last} ${words.at(-1)}`;
}

/** A probability as a percentage; it is 0 or 100 only if the probability is exactly 0 or 1. */
export function percent(p: number): string {
  if (p > 0 && p < 0.005) return "under 1 %";
  if (p < 1 && p > 0.995) return "over 99 %";
  return `${Math.round(p * 100)} %`;
}

/** Minutes to the nearest half: `½ min`, `2 min`, `12½ min`. */
export function minutesText(minutes: number): string {
  const halves = Math.max(1, Math.round(minutes * 2));
  const whole = Math.floor(halves / 2);
  if (halves % 2 === 0) return `${whole} min`;
  return whole === 0 ? "½ min" : `${whole}½ min`;
}

/** Minutes to a tenth, for use beside an amount of money that was computed from them: `3.3 min`. */
export const tenthsText = (minutes: number): string => `${Number(minutes.toFixed(1))} min`;

/** Volts to one decimal place. */
export const voltsText = (volts: number): string => `${(Math.abs(volts) < 0.05 ? 0 : volts).toFixed(1)} V`;

/** Amps to one decimal place. */
export const ampsText = (amps: number): string => `${(Math.abs(amps) < 0.05 ? 0 : amps).toFixed(1)} A`;

/** Ohms with a sensible number of digits; null or Infinity is "OL (open)". */
export function ohmsText(ohms: number | null): string {
  if (ohms === null || !Number.isFinite(ohms)) return "OL (open)";
  if (ohms >= 1e6) return `${(ohms / 1e6).toFixed(1)} MΩ`;
  if (ohms >= 1000) return `${(ohms / 1000).toFixed(1)} kΩ`;
  return `${ohms.toFixed(ohms < 10 ? 2 : 0)} Ω`;
}

/** Odds such as `12 to 1`, rounded for reading. */
export function oddsText(ratio: number): string {
  if (ratio >= 999) return "1000 to 1 or more";
  if (ratio >= 20) return `${Math.round(ratio / 10) * 10} to 1`;
  return ratio >= 3 ? `${Math.round(ratio)} to 1` : `${ratio.toFixed(1)} to 1`;
}

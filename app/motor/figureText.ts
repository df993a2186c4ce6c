/** Amps as a page shows them. */
export const amps = (value: number): string => `${value.toFixed(Math.abs(value) < 10 ? 2 : 1)} A`;
export const watts = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)} W`;
export const hertz = (value: number): string => `${value < 100 ? value.toFixed(1) : Math.round(value)} Hz`;
export const rpm = (value: number): string => `${Math.round(value)} rpm`;
export const percentOf = (share: number): string =>
  share > 0.99 && share < 1
    ? "over 99 %"
    : share > 0 && share < 0.01
      ? "under 1 %"
      : `${Math.round(100 * share)} %`;
export const seconds = (value: number): string =>
  value < 1 ? `${Math.round(1000 * value)} ms` : `${value.toFixed(1)} s`;

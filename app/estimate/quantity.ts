import type { EstimateLine } from "@core/money/estimateLine";

/** A line's quantity with its unit: `0.5 h`, `2`. */
export const quantityText = ({
  quantityMilli,
  unit,
}: Pick<EstimateLine, "quantityMilli" | "unit">): string =>
  unit === "h" ? `${quantityMilli / 1000} h` : `${quantityMilli / 1000}`;

/** A typed figure in thousandths, or hundredths; null if it cannot be read or has more decimal places. */
export function typedScaled(text: string, digits: number): number | null {
  const match = /^(\d{1,6})(?:[.,](\d+))?$/.exec(text.trim());
  if (!match) return null;
  const fraction = (match[2] ?? "").replace(/0+$/, "");
  return fraction.length > digits ? null : Number(`${match[1]}${fraction.padEnd(digits, "0")}`);
}

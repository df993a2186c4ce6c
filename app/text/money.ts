const formats = new Map<string, Intl.NumberFormat>();

/** Digits after the point of a currency's minor unit, by the platform's ISO 4217 data; two for unknown currencies. */
export function minorDigits(currency: string): number {
  return formatOf(currency).resolvedOptions().maximumFractionDigits ?? 2;
}

function formatOf(currency: string): Intl.NumberFormat {
  const known = formats.get(currency);
  if (known) return known;
  const made = new Intl.NumberFormat("en-GB", { style: "currency", currency, currencyDisplay: "code" });
  formats.set(currency, made);
  return made;
}

/** Minor units as an amount, without the currency's code: 1234 is `12.34`, exact. */
export function amountText(minor: number, currency: string): string {
  const digits = minorDigits(currency);
  const sign = minor < 0 ? "−" : "";
  const text = String(Math.abs(minor)).padStart(digits + 1, "0");
  return digits === 0 ? `${sign}${text}` : `${sign}${text.slice(0, -digits)}.${text.slice(-digits)}`;
}

/** The same with the code, if the shop has set one. */
export const priceText = (minor: number, currency: string): string =>
  currency === "XXX" ? amountText(minor, currency) : `${currency} ${amountText(minor, currency)}`;

/** A typed amount in minor units; null if it cannot be read or has too many decimals. Floating point is not used. */
export function typedMinor(text: string, currency: string): number | null {
  const digits = minorDigits(currency);
  const match = /^([-−]?)(\d{1,9})(?:[.,](\d+))?$/.exec(text.trim());
  if (!match) return null;
  const fraction = match[3] ?? "";
  if (fraction.length > digits) return null;
  const minor = Number(`${match[2]}${fraction.padEnd(digits, "0")}`);
  return match[1] ? -minor : minor;
}

/** An exact fraction; decimal figures and unit definitions are stored this way. */
interface Fraction {
  readonly top: bigint;
  readonly bottom: bigint;
}

/** A unit by its definition: base = figure × factor + zero, both exact. Wire gauge has a formula instead. */
export type Unit = {
  readonly id: string;
  /** The unit's sign as written after a figure. */
  readonly text: string;
} & ({ readonly factor: Fraction; readonly zero: Fraction } | { readonly gauge: true });

const decimalPattern = /^([+-]?)(\d*)(?:[.,](\d*))?(?:[eE]([+-]?\d{1,3}))?$/;

/** A decimal figure, with point or comma, as an exact fraction; null if it is not one. */
function fractionOf(text: string): Fraction | null {
  const found = decimalPattern.exec(text.trim());
  const [, sign = "", whole = "", part = "", power = "0"] = found ?? [];
  if (!found || whole + part === "") return null;
  const digits = BigInt(whole + part) * (sign === "-" ? -1n : 1n);
  const shift = Number(power) - part.length;
  return shift >= 0
    ? { top: digits * 10n ** BigInt(shift), bottom: 1n }
    : { top: digits, bottom: 10n ** BigInt(-shift) };
}

const times = (a: Fraction, b: Fraction): Fraction => ({ top: a.top * b.top, bottom: a.bottom * b.bottom });
const over = (a: Fraction, b: Fraction): Fraction => ({ top: a.top * b.bottom, bottom: a.bottom * b.top });
const plus = (a: Fraction, b: Fraction): Fraction => ({
  top: a.top * b.bottom + b.top * a.bottom,
  bottom: a.bottom * b.bottom,
});
const minus = (a: Fraction, b: Fraction): Fraction => plus(a, { top: -b.top, bottom: b.bottom });

/** The nearest double: numerator and denominator are first cut to the digits a double holds. */
function numberOf({ top, bottom }: Fraction): number {
  const whole = top / bottom;
  const digits = whole === 0n ? bottom.toString().length - top.toString().replace("-", "").length : 0;
  const scale = 10n ** BigInt(20 + Math.max(0, digits));
  return Number(`${(top * scale) / bottom}e-${20 + Math.max(0, digits)}`);
}

const unit = (id: string, text: string, factor: string, zero = "0"): Unit => {
  const [one, other] = factor.split("/");
  const [high, low] = zero.split("/");
  const made = over(fractionOf(one ?? "") as Fraction, fractionOf(other ?? "1") as Fraction);
  const from = over(fractionOf(high ?? "") as Fraction, fractionOf(low ?? "1") as Fraction);
  return { id, text, factor: made, zero: from };
};

/**
 * Units by quantity, the base unit first. The foot and the inch are exact (international yard and pound agreement of
 * 1959; NIST SP 811, appendix B.8), the Fahrenheit scale too; wire gauge by ASTM B258.
 */
export const units = {
  length: [
    unit("m", "m", "1"),
    unit("ft", "ft", "0.3048"),
    unit("in", "in", "0.0254"),
    unit("cm", "cm", "0.01"),
    unit("mm", "mm", "0.001"),
  ],
  area: [unit("mm2", "mm²", "1"), { id: "awg", text: "AWG", gauge: true }, unit("in2", "in²", "645.16")],
  current: [unit("A", "A", "1"), unit("mA", "mA", "0.001")],
  voltage: [unit("V", "V", "1"), unit("mV", "mV", "0.001")],
  resistance: [
    unit("ohm", "Ω", "1"),
    unit("mohm", "mΩ", "0.001"),
    unit("kohm", "kΩ", "1000"),
    unit("Mohm", "MΩ", "1000000"),
  ],
  power: [unit("W", "W", "1"), unit("kW", "kW", "1000")],
  temperature: [unit("C", "°C", "1"), unit("F", "°F", "5/9", "-160/9"), unit("K", "K", "1", "-273.15")],
  turning: [unit("rpm", "rpm", "1"), unit("Hz", "turns/s", "60")],
  share: [unit("pct", "%", "1"), unit("of1", "of 1", "100")],
  time: [unit("min", "min", "1"), unit("h", "h", "60"), unit("s", "s", "1/60")],
  scale: [unit("mVA", "mV/A", "1"), unit("VA", "V/A", "1000")],
  count: [unit("n", "", "1")],
} as const satisfies Readonly<Record<string, readonly Unit[]>>;

export type QuantityName = keyof typeof units;

/** A unit of a quantity by its id, its sign or a usual way to type it; null if there is none. */
export function unitNamed(quantity: QuantityName, name: string): Unit | null {
  const wanted = name
    .trim()
    .toLowerCase()
    .replace("²", "2")
    .replace("°", "")
    .replace("ω", "ohm")
    .replace("µ", "u");
  const own: readonly Unit[] = units[quantity];
  // Milli and mega differ only in the capital letter.
  const exact = own.find(({ id, text }) => id === name.trim() || text === name.trim());
  return (
    exact ??
    own.find(({ id, text }) =>
      [id, text].some(
        (known) =>
          known.toLowerCase().replace("²", "2").replace("°", "").replace("ω", "ohm") === wanted &&
          wanted !== "",
      ),
    ) ??
    null
  );
}

/** Diameter of AWG 36 and the ratio of a diameter to the next one, in millimetres: ASTM B258, 39 equal steps to 0000. */
const gauge36Mm = 0.127;
const gaugeSteps = 39;
const gaugeSpan = 92;

/** Square millimetres of a solid wire of a gauge; 00 is −1, 000 is −2. */
export function gaugeMm2(awg: number): number {
  const mm = gauge36Mm * gaugeSpan ** ((36 - awg) / gaugeSteps);
  return (Math.PI * mm * mm) / 4;
}

/** The gauge of a cross-section in square millimetres; it is seldom a whole number. */
export function gaugeOf(mm2: number): number {
  const mm = Math.sqrt((4 * mm2) / Math.PI);
  return 36 - (gaugeSteps * Math.log(mm / gauge36Mm)) / Math.log(gaugeSpan);
}

/** A figure in a unit, converted to the quantity's base unit; null if the text is not a figure. */
export function baseFigure(text: string, of: Unit): number | null {
  const fraction = fractionOf(text);
  if (!fraction) return null;
  if ("gauge" in of) return gaugeMm2(numberOf(fraction));
  return numberOf(plus(times(fraction, of.factor), of.zero));
}

const digitsTyped = 12;
/** A conversion gives more than twelve digits, so a twelve-digit figure was typed by a person. */
const digitsKept = 40;
const nearness = 1e-36;
/** A gauge is converted through logarithms of doubles and stamped with few digits, so fewer are kept. */
const gaugeDigitsTyped = 6;
const gaugeNearness = 1e-12;
const doubleNearness = 1e-13;

/** A fraction as a decimal figure: exact if it ends within the digits kept, otherwise rounded to them. */
function decimalText(fraction: Fraction, digits: number): string {
  const negative = fraction.top < 0n !== fraction.bottom < 0n;
  const [top, bottom] = [fraction.top, fraction.bottom].map((own) => (own < 0n ? -own : own)) as [
    bigint,
    bigint,
  ];
  if (top === 0n) return "0";
  // Decimal places that give the wanted number of significant digits.
  const size = top.toString().length - bottom.toString().length;
  let places = Math.max(0, digits - size);
  let scaled = (2n * top * 10n ** BigInt(places) + bottom) / (2n * bottom);
  while (scaled.toString().length > digits && places > 0) {
    places -= 1;
    scaled = (2n * top * 10n ** BigInt(places) + bottom) / (2n * bottom);
  }
  const text = scaled.toString().padStart(places + 1, "0");
  const whole = text.slice(0, text.length - places);
  const part = places > 0 ? text.slice(-places).replace(/0+$/, "") : "";
  return `${negative ? "-" : ""}${whole}${part === "" ? "" : `.${part}`}`;
}

const significant = (text: string): number =>
  text.replace(/e.*$/i, "").replace(/\D/g, "").replace(/^0+/, "").length;

/**
 * Converts a typed figure to another unit of its quantity. The conversion is exact: there and back gives the typed
 * figure, up to twelve digits (six if one side is a gauge). If no decimal is exact, the result has more digits, and
 * converts back to what was typed.
 * @returns null if the text is not a figure
 */
export function inUnit(text: string, from: Unit, to: Unit): string | null {
  const typed = fractionOf(text);
  if (!typed) return null;
  if (from.id === to.id) return text;
  const made = convertedFraction(typed, from, to);
  const kept = decimalText(made, digitsKept);
  if (significant(text) <= digitsTyped) return kept;
  // The figure came from a conversion, so the short figure it was made from is restored if it is close enough.
  const short = decimalText(made, "gauge" in to || "gauge" in from ? gaugeDigitsTyped : digitsTyped);
  const apart = minus(fractionOf(short) as Fraction, made);
  // On a scale with another zero, the figures' error is relative to the whole span.
  const size = Math.max(
    Math.abs(numberOf(made)),
    [from, to].some((own) => "zero" in own && own.zero.top !== 0n) ? 1000 : 0,
  );
  const within = "gauge" in to ? gaugeNearness : ("gauge" in from ? doubleNearness : nearness) * size;
  return Math.abs(numberOf(apart)) <= within ? short : kept;
}

function convertedFraction(typed: Fraction, from: Unit, to: Unit): Fraction {
  if ("gauge" in from || "gauge" in to) {
    const base =
      "gauge" in from ? gaugeMm2(numberOf(typed)) : numberOf(plus(times(typed, from.factor), from.zero));
    const own = fractionOf(("gauge" in to ? gaugeOf(base) : base).toPrecision(17)) as Fraction;
    return "gauge" in to ? own : over(minus(own, to.zero), to.factor);
  }
  return over(minus(plus(times(typed, from.factor), from.zero), to.zero), to.factor);
}

/** A number of the base unit as a figure in a unit, to a number of digits, for reading. */
export function figureIn(base: number, of: Unit, digits = 4): string {
  if (!Number.isFinite(base)) return "infinite";
  const own = "gauge" in of ? gaugeOf(base) : (base - numberOf(of.zero)) / numberOf(of.factor);
  if (own === 0) return "0";
  const places = Math.max(0, Math.min(20, digits - 1 - Math.floor(Math.log10(Math.abs(own)))));
  const text = own.toFixed(places);
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

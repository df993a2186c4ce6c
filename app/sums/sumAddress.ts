import { startOf, type Typed, typedFigure } from "@core/sums/benchSums";
import type { Sum } from "@core/sums/sum";

/**
 * The input in an address, `length=3 ft&amps=20`. A missing field has its default; an unknown unit keeps the field's
 * own.
 */
export function askedBy(sum: Sum, query: URLSearchParams): Record<string, Typed> {
  const asked = startOf(sum);
  for (const field of sum.fields) {
    const given = query.get(field.id);
    if (given === null) continue;
    asked[field.id] =
      "quantity" in field ? typedFigure(field, given, field.unit) : { text: given.slice(0, 200), unit: "" };
  }
  return asked;
}

/** The address with the same input; defaults are left out. */
export function addressOf(sum: Sum, asked: Readonly<Record<string, Typed>>): URLSearchParams {
  const query = new URLSearchParams();
  for (const field of sum.fields) {
    const own = asked[field.id];
    if (!own) continue;
    const unit = "quantity" in field ? own.unit : "";
    if (own.text === field.start && ("quantity" in field ? unit === field.unit : true)) continue;
    query.set(field.id, unit === "" ? own.text : `${own.text} ${unit}`);
  }
  return query;
}

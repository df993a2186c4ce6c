import { typedFigure } from "@core/units/typedFigure";
import { type WorkEntry, workEntrySchema } from "@core/workList/workLine";
import { typedMinor } from "../text/money";

/** The form of a line, by field, as typed. */
export type WorkFields = Readonly<Record<string, string | undefined>>;

const fieldTitles: Readonly<Record<string, string>> = {
  what: "What",
  done: "Work",
  number: "Part number",
  source: "Source",
  plannedMinutes: "Planned minutes",
  minutes: "Minutes taken",
  priceMinor: "Price",
  warrantyMonths: "Warranty",
};

/**
 * A line as typed.
 * @param nameOf the name of something on the circuit; null if there is no such thing
 * @param currency of the shop
 */
export function readWorkForm(
  fields: WorkFields,
  nameOf: (part: string) => string | null,
  currency: string,
): { readonly entry: WorkEntry } | { readonly problem: string } {
  const said = (name: string): string => fields[name]?.trim() ?? "";
  const figure = (name: string) => (said(name) === "" ? {} : { [name]: typedFigure(said(name)) });
  const text = (name: string) => (said(name) === "" ? {} : { [name]: said(name) });
  const part = said("part");
  const name = part === "" ? null : nameOf(part);
  if (part !== "" && name === null) return { problem: `What: there is no ${part} on this circuit` };
  const price = said("price");
  const priceMinor = price === "" ? undefined : typedMinor(price, currency);
  if (priceMinor === null) return { problem: `Price: “${price}” is not an amount such as 45.00` };
  const parsed = workEntrySchema.safeParse({
    ...(part === "" ? {} : { part }),
    what: name ?? said("what"),
    done: said("done"),
    ...text("number"),
    ...text("source"),
    ...figure("plannedMinutes"),
    ...figure("minutes"),
    ...figure("warrantyMonths"),
    ...(priceMinor === undefined ? {} : { priceMinor }),
    ...(said("temporary") === "yes" ? { temporary: true } : {}),
    ...(said("adaptsPart") === "" ? {} : { adapts: { part: said("adaptsPart"), work: said("adaptsWork") } }),
  });
  if (parsed.success) return { entry: parsed.data };
  const [issue] = parsed.error.issues;
  const at = String(issue?.path[0] ?? "");
  const reason = issue?.code === "invalid_type" ? "is not a figure such as 12.5" : issue?.message;
  return { problem: `${fieldTitles[at] ?? at}: ${reason ?? "cannot be read"}` };
}

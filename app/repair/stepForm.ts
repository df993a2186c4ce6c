import type { AccessStep } from "@core/access/plan";
import { parsePlugs, parseRoutes, words } from "@core/access/planText";
import { parseFasteners } from "@core/access/typedFastener";
import { type Parsed, refused } from "@core/problem/problem";
import { typedFigure } from "@core/units/typedFigure";

type Fields = Readonly<Record<string, string>>;

/** Figures and words separated by commas; null if there are too few. */
function split(text: string, figures: number): { readonly values: number[]; readonly rest: string } | null {
  const pieces = text.split(",");
  if (pieces.length <= figures) return null;
  return { values: pieces.slice(0, figures).map(typedFigure), rest: pieces.slice(figures).join(",").trim() };
}

/** A step as a form sends it, not yet checked as part of its plan; refused with the field that cannot be read. */
export function stepFrom(fields: Fields, cautions: readonly string[]): Parsed<unknown> {
  const text = (name: string): string => (fields[name] ?? "").trim();
  const fasteners = parseFasteners(text("fasteners"));
  if (!fasteners.ok) return fasteners;
  const next = text("nextPerson") ? split(text("nextPerson"), 1) : null;
  if (text("nextPerson") && !next)
    return refused([
      {
        code: "unreadable",
        path: "nextPerson",
        message: "enter minutes and a reason, such as: 5, a third screw is wanted",
      },
    ]);
  const risk = text("risk") ? split(text("risk"), 2) : null;
  if (text("risk") && !risk)
    return refused([
      {
        code: "unreadable",
        path: "risk",
        message: "enter percent, minutes and what happens, such as: 8, 25, the housing tears",
      },
    ]);
  const optional = (name: keyof AccessStep, value: unknown) => (text(name) ? { [name]: value } : {});
  const needs = parseRoutes(text("needs"));
  return {
    ok: true,
    value: {
      id: text("id"),
      title: text("title"),
      minutes: typedFigure(text("minutes")),
      ...optional("slowMinutes", typedFigure(text("slowMinutes"))),
      ...(needs.length > 0 ? { needs } : {}),
      ...optional("tools", words(text("tools"))),
      ...optional("back", text("back") === "-" ? null : text("back")),
      ...optional("kind", text("kind")),
      ...(fasteners.value.length > 0 ? { fasteners: fasteners.value } : {}),
      ...optional("plugs", parsePlugs(text("plugs"))),
      ...optional("tubes", typedFigure(text("tubes"))),
      ...optional("hangs", text("hangs")),
      ...optional("keyed", text("keyed")),
      ...optional("way", text("way")),
      ...(risk
        ? { risk: { p: (risk.values[0] as number) / 100, minutes: risk.values[1], what: risk.rest } }
        : {}),
      ...(next ? { nextPerson: { minutes: next.values[0], why: next.rest } } : {}),
      ...optional("uses", words(text("uses"))),
      ...optional("opens", words(text("opens"))),
      ...(cautions.length > 0 ? { cautions } : {}),
    },
  };
}

import { type Parsed, quoted, refused } from "../problem/problem";
import type { Fastener } from "./fastener";
import { type AccessStep, type Routes, tabs } from "./plan";

/** Ways as typed: `mat + flap / glove-box` is both of the first two, or the third. */
export const routesText = (ways: Routes): string => ways.map((way) => way.join(" + ")).join(" / ");

/** Reads ways as typed; an empty text is no way. */
export function parseRoutes(text: string): string[][] {
  return text
    .split("/")
    .map((way) => way.split("+").flatMap((id) => id.trim() || []))
    .filter((way) => way.length > 0);
}

/** Fasteners as typed: `3 hex 5.5 mm plastic, 1 torx T20 metal hidden`. */
export const fastenersText = (fasteners: readonly Fastener[]): string =>
  fasteners
    .map(({ count, head, size, into, hidden, loosenOnly, back }) =>
      [
        count,
        head,
        ...(size ? [size] : []),
        into,
        ...(hidden ? ["hidden"] : []),
        ...(loosenOnly ? ["loosened"] : []),
        ...(back === undefined ? [] : [`back ${back}`]),
      ].join(" "),
    )
    .join(", ");

const oneFastener =
  /^(\d{1,2}) (hex|torx|phillips|pozidriv|slotted|allen)(?: (\S+(?: (?:mm|in))?))?? (plastic|metal)((?: hidden| loosened| back \d{1,2})*)$/;

/** Reads fasteners as typed; refused with the first one that cannot be read. */
export function parseFasteners(text: string): Parsed<Fastener[]> {
  const made: Fastener[] = [];
  for (const own of text.split(/[,;\n]/).flatMap((piece) => piece.trim().replaceAll(/\s+/g, " ") || [])) {
    const match = oneFastener.exec(own);
    if (!match)
      return refused([
        {
          code: "unreadable",
          path: "fasteners",
          message: `expected like "3 hex 5.5 mm plastic hidden", got ${quoted(own)}`,
        },
      ]);
    const marks = match[5] ?? "";
    const back = /back (\d+)/.exec(marks);
    made.push({
      count: Number(match[1]),
      head: match[2] as Fastener["head"],
      ...(match[3] ? { size: match[3] } : {}),
      into: match[4] as Fastener["into"],
      ...(marks.includes("hidden") ? { hidden: true } : {}),
      ...(marks.includes("loosened") ? { loosenOnly: true } : {}),
      ...(back ? { back: Number(back[1]) } : {}),
    });
  }
  return { ok: true, value: made };
}

type Plugs = NonNullable<AccessStep["plugs"]>;

/** Plugs as typed: `X5 press, lamp`. */
export const plugsText = (plugs: Plugs): string =>
  plugs.map(({ id, tab }) => (tab ? `${id} ${tab}` : id)).join(", ");

/** Reads plugs as typed; a last word that names a kind of tab is the tab. */
export const parsePlugs = (text: string): Plugs =>
  words(text).map((own) => {
    const tab = tabs.find((one) => own.endsWith(` ${one}`));
    return tab ? { id: own.slice(0, -tab.length).trim(), tab } : { id: own };
  });

/** A list typed with commas. */
export const words = (text: string): string[] => text.split(",").flatMap((own) => own.trim() || []);

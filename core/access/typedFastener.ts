import { type Parsed, quoted, refused } from "../problem/problem";
import type { FastenerSort } from "./fastener";
import type { FastenerHead, FastenerKind } from "./fastenerKind";
import type { Fastener } from "./fastenerSchema";

const sortText = ({ kind, head, size }: FastenerSort): string[] => [
  ...(kind ? [kind.replace("-", " ")] : []),
  ...(head ? [head] : []),
  ...(size ? [size] : []),
];

/** Fasteners as typed: `3 hex 5.5 mm plastic, 1 torx T20 metal hidden, 2 push clip`. */
export const fastenersText = (fasteners: readonly Fastener[]): string =>
  fasteners
    .map(({ count, into, hidden, loosenOnly, back, instead, ...sort }) =>
      [
        count,
        ...sortText(sort),
        ...(into ? [into] : []),
        ...(hidden ? ["hidden"] : []),
        ...(loosenOnly ? ["loosened"] : []),
        ...(back === undefined ? [] : [`back ${back}`]),
        ...(instead ? ["instead", ...sortText(instead)] : []),
      ].join(" "),
    )
    .join(", ");

const kinds: readonly (readonly [RegExp, FastenerKind])[] = [
  [/^push clips?\b/, "push-clip"],
  [/^spring clips?\b/, "spring-clip"],
  [/^clips?\b/, "push-clip"],
  [/^screws?\b/, "screw"],
  [/^bolts?\b/, "bolt"],
  [/^nuts?\b/, "nut"],
];
const head = /^(hex|torx|phillips|pozidriv|slotted|allen)\b/;
/** Sizes as stamped, the head they belong to, and how they are written in full. */
const sizes: readonly (readonly [RegExp, FastenerHead | null, (own: string) => string])[] = [
  [/^t ?\d{1,2}\b/, "torx", (own) => own.toUpperCase().replace(" ", "")],
  [/^ph ?\d\b/, "phillips", (own) => own.toUpperCase().replace(" ", "")],
  [/^pz ?\d\b/, "pozidriv", (own) => own.toUpperCase().replace(" ", "")],
  [/^\d{1,2}\/\d{1,2}(?: ?(?:in\b|"))?/, "hex", (own) => `${own.replace(/ ?(?:in|")$/, "")} in`],
  [/^\d{1,2}(?:[.,]\d)? ?mm\b/, "hex", (own) => own.replace(",", ".").replace(/ ?mm$/, " mm")],
  [/^\d{1,2}[.,]\d\b/, "hex", (own) => `${own.replace(",", ".")} mm`],
];

interface Rest {
  text: string;
}

/** Takes what a pattern finds off the front of a text. */
function taken(rest: Rest, pattern: RegExp): string | null {
  const [own] = pattern.exec(rest.text) ?? [];
  if (own === undefined) return null;
  rest.text = rest.text.slice(own.length).trim();
  return own;
}

/** Reads kind, head and size, in any order; null if there are none of them. */
function sortOf(rest: Rest): FastenerSort | null {
  let sort: FastenerSort = {};
  for (let before = ""; before !== rest.text; ) {
    before = rest.text;
    for (const [pattern, kind] of kinds) if (!sort.kind && taken(rest, pattern)) sort = { ...sort, kind };
    const turner = sort.head ? null : taken(rest, head);
    if (turner) sort = { ...sort, head: turner as FastenerHead };
    for (const [pattern, own, written] of sizes) {
      const size = sort.size ? null : taken(rest, pattern);
      if (size) sort = withSize(sort, written(size), own);
    }
  }
  // Anything with a head and no other kind is a screw, so the word adds nothing.
  if (sort.kind === "screw" && (sort.head || sort.size))
    return { ...(sort.head ? { head: sort.head } : {}), ...(sort.size ? { size: sort.size } : {}) };
  return Object.keys(sort).length > 0 ? sort : null;
}

/** A screw's size tells its head; a nut and a bolt are turned by the same socket anyway. */
const withSize = (sort: FastenerSort, size: string, own: FastenerHead | null): FastenerSort =>
  sort.head || sort.kind === "nut" || sort.kind === "bolt" || !own
    ? { ...sort, size }
    : { ...sort, head: own, size };

/** Reads one sort of fastener as typed; null if a word of it cannot be read. */
function oneFastener(text: string): Fastener | null {
  const rest: Rest = { text: text.toLowerCase() };
  // A size by itself, as called out over the shoulder, is one screw.
  const isSize = sizes.some(([pattern]) => pattern.exec(rest.text)?.[0] === rest.text);
  const counted = isSize ? "1" : taken(rest, /^\d{1,2}(?: ?[x×])?(?= )/);
  const sort = counted ? sortOf(rest) : null;
  if (!counted || !sort) return null;
  const count = Number.parseInt(counted, 10);
  let own: Fastener = { count, ...sort };
  for (let before = ""; before !== rest.text; ) {
    before = rest.text;
    taken(rest, /^(?:into|in)\b(?= (?:plastic|metal))/);
    const into = taken(rest, /^(?:plastic|metal)\b/);
    if (into) own = { ...own, into: into as "plastic" | "metal" };
    if (taken(rest, /^hidden\b/)) own = { ...own, hidden: true };
    if (taken(rest, /^loosened\b/)) own = { ...own, loosenOnly: true };
    const back = taken(rest, /^back \d{1,2}\b/);
    if (back) own = { ...own, back: Number(back.slice("back ".length)) };
    if (taken(rest, /^instead\b/)) {
      const instead = sortOf(rest);
      if (!instead) return null;
      own = { ...own, instead };
    }
  }
  return rest.text === "" && count > 0 ? own : null;
}

/**
 * Reads fasteners as typed: `3 push clips`, `2 nuts 7 mm`, `2 T25 into plastic`, `9/32`. Refused with the first one
 * that cannot be read.
 */
export function parseFasteners(text: string): Parsed<Fastener[]> {
  const made: Fastener[] = [];
  for (const own of text
    .split(/(?<!\d),|,(?!\d)|[;\n]/)
    .flatMap((piece) => piece.trim().replaceAll(/\s+/g, " ") || [])) {
    const fastener = oneFastener(own);
    if (!fastener)
      return refused([
        {
          code: "unreadable",
          path: "fasteners",
          message: `expected like "3 hex 5.5 mm plastic hidden", "2 nuts 7 mm" or "3 push clips", got ${quoted(own)}`,
        },
      ]);
    made.push(fastener);
  }
  return { ok: true, value: made };
}

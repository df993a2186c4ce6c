import type { FastenerHead, FastenerKind } from "./fastenerKind";
import type { Fastener } from "./fastenerSchema";

/** What tells one fastener in the tray from another. */
export type FastenerSort = Pick<Fastener, "kind" | "head" | "size">;

const heads: Readonly<Record<FastenerHead, string>> = {
  hex: "socket",
  torx: "driver",
  phillips: "Phillips screwdriver",
  pozidriv: "Pozidriv screwdriver",
  slotted: "flat screwdriver",
  allen: "Allen key",
};

const isClip = ({ kind }: FastenerSort): boolean => kind === "push-clip" || kind === "spring-clip";

/** The tool that turns it: `7 mm socket`, `T20 driver`, `trim lever`. */
export function toolFor(sort: FastenerSort): string {
  if (isClip(sort)) return "trim lever";
  const turner = heads[sort.head ?? "hex"];
  return sort.size ? `${sort.size} ${turner}` : turner;
}

const kindWords: Readonly<Record<FastenerKind, readonly [one: string, more: string]>> = {
  screw: ["screw", "screws"],
  bolt: ["bolt", "bolts"],
  nut: ["nut", "nuts"],
  "push-clip": ["push clip", "push clips"],
  "spring-clip": ["spring clip", "spring clips"],
};

/** The name of a sort: `5.5 mm screw`, `Phillips screw`, `push clip`. It is also how the tray tells them apart. */
export function sortName({ kind = "screw", head, size: stamped }: FastenerSort, count = 1): string {
  const word = kindWords[kind][count === 1 ? 0 : 1];
  const mark = stamped ?? (head === "phillips" || head === "pozidriv" ? heads[head].split(" ")[0] : head);
  return isClip({ kind }) || !mark ? word : `${mark} ${word}`;
}

/** `3 × 5.5 mm into plastic (hidden among them)`, `3 × push clip`. */
export function fastenerText(fastener: Fastener): string {
  const { count, size: stamped, head, kind = "screw", into, hidden, loosenOnly, instead } = fastener;
  const sort = kind === "screw" ? (stamped ?? head ?? "screw") : sortName(fastener, count);
  const words = `${count} × ${sort}${into ? ` into ${into}` : ""}`;
  const marks = [
    ...(hidden ? [count > 1 ? "hidden among them" : "hidden"] : []),
    ...(loosenOnly ? ["loosened only, the ear is slotted"] : []),
    ...(instead ? [`when refitted, new ${sortName(instead, count)}`] : []),
  ];
  return marks.length > 0 ? `${words} (${marks.join("; ")})` : words;
}

/** Fasteners of this sort that go into the tray; none if they are only loosened. */
export const screwsOut = ({ count, loosenOnly }: Fastener): number => (loosenOnly ? 0 : count);

/** Fasteners that are refitted, from the tray or new. */
export const screwsBack = (fastener: Fastener): number =>
  Math.min(screwsOut(fastener), fastener.back ?? screwsOut(fastener));

/** The sort that goes back in: its own, or the one fitted instead. */
export const sortBack = (fastener: Fastener): FastenerSort => fastener.instead ?? fastener;

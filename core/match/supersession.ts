import type { PartDescription } from "./partDescription";

/** A part number followed to the one that is sold today. */
export type Superseded =
  | { readonly kind: "current"; readonly number: string; readonly chain: readonly string[] }
  | { readonly kind: "unknown"; readonly number: string; readonly chain: readonly string[] }
  | { readonly kind: "circle"; readonly chain: readonly string[] };

/** Numbers compare without their spaces, dots and dashes. */
export const plainNumber = (number: string): string => number.toUpperCase().replaceAll(/[ .-]/g, "");

/**
 * Follows a number through those that stand in for it, by `replacedBy` and by what others say they replace; a chain that
 * comes round to itself is named.
 */
export function supersededBy(
  catalogue: readonly Pick<PartDescription, "number" | "replacedBy" | "replaces">[],
  number: string,
): Superseded {
  const find = (own: string) => catalogue.find((part) => plainNumber(part.number) === plainNumber(own));
  const next = (own: string): string | undefined =>
    find(own)?.replacedBy ??
    catalogue.find(
      (part) =>
        plainNumber(part.number) !== plainNumber(own) &&
        (part.replaces ?? []).some((old) => plainNumber(old) === plainNumber(own)),
    )?.number;
  const chain = [find(number)?.number ?? number];
  for (;;) {
    const last = chain.at(-1) as string;
    const following = next(last);
    if (following === undefined) return { kind: find(last) ? "current" : "unknown", number: last, chain };
    const back = chain.some((own) => plainNumber(own) === plainNumber(following));
    chain.push(following);
    if (back) return { kind: "circle", chain };
  }
}

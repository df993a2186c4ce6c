import type { PartDescription } from "./partDescription";

/** A part number, and the number it is sold under today. */
export type Superseded =
  | { readonly kind: "current"; readonly number: string; readonly chain: readonly string[] }
  | { readonly kind: "unknown"; readonly number: string; readonly chain: readonly string[] }
  | { readonly kind: "circle"; readonly chain: readonly string[] };

/** Numbers are compared without spaces, dots and dashes. */
export const plainNumber = (number: string): string => number.toUpperCase().replaceAll(/[ .-]/g, "");

/**
 * Follows a number through its replacements, by `replacedBy` and by the numbers other parts say they replace. A
 * circular chain is reported.
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

import { type Parsed, quoted, refused } from "../problem/problem";

/** The pieces of one fault's id: in `W9/from:high@1.5` the place is `W9/from`, the mode `high` and the value 1.5. */
export interface FaultName {
  readonly where: string;
  readonly mode: string;
  readonly value: number | null;
}

/** A fault's id without its value; faults that differ only in size share it. */
export const suspectGroupId = (names: readonly FaultName[]): string =>
  names.map(({ where, mode }) => `${where}:${mode}`).join("+");

/** The id of one fault or of several joined ones, the cause first. */
export const faultId = (names: readonly FaultName[]): string =>
  names.map(({ where, mode, value }) => `${where}:${mode}${value === null ? "" : `@${value}`}`).join("+");

/** Reads a fault id: the mode follows the last colon, and pairs are joined by `+`. */
export function parseFaultId(text: string): Parsed<FaultName[]> {
  const names: FaultName[] = [];
  for (const piece of text.split("+")) {
    const colon = piece.lastIndexOf(":");
    if (colon < 1 || colon === piece.length - 1)
      return refused([
        { code: "wrong-value", path: "fault", message: `expected WHERE:mode, got ${quoted(piece)}` },
      ]);
    const [mode = "", size, extra] = piece.slice(colon + 1).split("@");
    const value = size === undefined ? null : Number(size);
    if (extra !== undefined || (value !== null && !(value > 0 && Number.isFinite(value))))
      return refused([
        {
          code: "out-of-range",
          path: "fault",
          message: `expected a value above 0 after @, got ${quoted(piece)}`,
        },
      ]);
    names.push({ where: piece.slice(0, colon), mode, value });
  }
  return { ok: true, value: names };
}

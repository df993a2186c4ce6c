/** A typed figure one step of its last digit up or down; null if it is not a figure. A decimal comma is kept. */
export function steppedFigure(text: string, by: 1 | -1): string | null {
  const found = /^\s*([+-]?\d*)([.,]?)(\d*)\s*$/.exec(text);
  const [, whole = "", point = "", part = ""] = found ?? [];
  if (!found || whole + part === "" || part.length > 12) return null;
  const stepped = Number(`${whole}.${part}`) + by * 10 ** -part.length;
  return stepped.toFixed(part.length).replace(".", point || ".");
}

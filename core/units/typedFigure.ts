/**
 * A figure as a person types it, with a decimal point or a decimal comma; NaN if it is empty or not a finite number.
 */
export function typedFigure(text: string): number {
  const trimmed = text.trim();
  const figure = trimmed === "" ? Number.NaN : Number(trimmed.replace(",", "."));
  return Number.isFinite(figure) ? figure : Number.NaN;
}

/** Points of a line in a picture. */
export type Points = { x: number; y: number }[];

/** The lowest and highest value of each column as one vertical line, so that no spike is lost. */
export function envelopePoints(
  low: readonly number[],
  high: readonly number[],
  from: number,
  to: number,
): Points {
  const step = (to - from) / Math.max(1, low.length);
  return low.flatMap((value, i) => {
    const x = from + (i + 0.5) * step;
    return [
      { x, y: value },
      { x, y: high[i] as number },
    ];
  });
}

/** A line without dots. */
export const line = (label: string, data: Points, colour: string, width = 1) => ({
  label,
  data,
  borderColor: colour,
  borderWidth: width,
  pointRadius: 0,
  parsing: false as const,
});

/** Two axes with their titles. */
export const axes = (x: string, y: string) => ({
  x: { type: "linear" as const, title: { display: true, text: x } },
  y: { title: { display: true, text: y } },
});

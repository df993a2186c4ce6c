import { percent } from "@core/units/wording";

const height = 22;
const barWidth = 5;
const gap = 2;
/** Number of latest readings shown; more would not fit beside a name. */
const mostShown = 12;

/** The outline of some bars as one path, since a page of suspects has dozens of them. */
const bars = (p: readonly number[], from: number): string =>
  p
    .map((own, index) => {
      const tall = Math.max(1, own * height);
      return `M${(from + index) * (barWidth + gap)} ${(height - tall).toFixed(1)}h${barWidth}V${height}h-${barWidth}z`;
    })
    .join("");

/** A suspect's belief reading by reading: one bar before the first and one after each, all on one scale. */
export function BeliefSteps({ p }: { p: readonly number[] }) {
  const shown = p.slice(-mostShown);
  const width = shown.length * (barWidth + gap);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className="shrink-0"
      role="img"
      aria-label={`so far ${shown.map(percent).join(", ")}`}
    >
      <path d={`M0 ${height - 0.5}H${width}`} stroke="var(--edge)" />
      <path d={bars(shown.slice(0, -1), 0)} fill="var(--soft)" />
      <path d={bars(shown.slice(-1), shown.length - 1)} fill="var(--doubt)" />
    </svg>
  );
}

import { percent } from "@core/units/wording";

const height = 22;
const barWidth = 5;
const gap = 2;
/** The latest readings: more would not fit beside a name. */
const mostShown = 12;

/** How a suspect moved, reading by reading: one bar before the first and one after each, all to one scale. */
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
      {shown.map((own, index) => (
        <rect
          key={index}
          x={index * (barWidth + gap)}
          y={height - Math.max(1, own * height)}
          width={barWidth}
          height={Math.max(1, own * height)}
          fill={index === shown.length - 1 ? "var(--doubt)" : "var(--soft)"}
        />
      ))}
    </svg>
  );
}

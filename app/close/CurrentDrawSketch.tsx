import type { CloseData } from "./closeView.server";

const [width, height] = [360, 150];
const [left, right, top, bottom] = [34, 8, 8, 24];

/**
 * Amps measured in the final check, speed by speed, inside the band this circuit gives with the new part; for the job
 * card.
 */
export function CurrentDrawSketch({ draw: sample }: { draw: CloseData["draw"] }) {
  const most = Math.max(1, ...sample.flatMap(({ high, amps }) => [high, amps])) * 1.08;
  const y = (amps: number): number => height - bottom - (amps / most) * (height - top - bottom);
  const step = (width - left - right) / Math.max(1, sample.length);
  const ticks = [0, most / 2, most].map((own) => Math.round(own));
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={sample
        .map(
          ({ setting, amps, low, high }) =>
            `${setting}: ${amps.toFixed(1)} A, expected ${low.toFixed(1)} to ${high.toFixed(1)}`,
        )
        .join("; ")}
    >
      {ticks.map((own) => (
        <g key={own}>
          <line x1={left} x2={width - right} y1={y(own)} y2={y(own)} stroke="var(--rule)" strokeWidth={1} />
          <text x={left - 5} y={y(own) + 4} textAnchor="end" fontSize={11} fill="var(--ink)">
            {own}
          </text>
        </g>
      ))}
      {sample.map(({ setting, amps, low, high, right: good }, index) => {
        const x = left + (index + 0.5) * step;
        return (
          <g key={setting}>
            <rect
              x={x - 0.3 * step}
              y={y(high)}
              width={0.6 * step}
              height={Math.max(1, y(low) - y(high))}
              fill="var(--mark)"
              stroke="var(--edge)"
              strokeWidth={1}
            />
            <circle cx={x} cy={y(amps)} r={4.5} fill={good ? "var(--ink)" : "var(--danger)"} />
            <text x={x} y={height - 8} textAnchor="middle" fontSize={11} fill="var(--ink)">
              {setting}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

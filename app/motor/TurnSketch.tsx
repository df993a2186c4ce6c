import type { RippleReading } from "@core/ripple/rippleReading";
import { amps, rpm } from "./figureText";

const [width, height, edge] = [260, 56, 4];

/** One turn of a motor's current as a line, its bad ripples marked: for the job card. */
export function TurnSketch({
  humps: ripple,
}: {
  humps: Pick<RippleReading, "turnAmps" | "badHumps" | "humpsPerTurn" | "verdict" | "meanAmps" | "rpm">;
}) {
  const { turnAmps, badHumps, humpsPerTurn } = ripple;
  const [low, high] = [Math.min(...turnAmps), Math.max(...turnAmps)];
  const x = (share: number): number => edge + share * (width - 2 * edge);
  const y = (value: number): number =>
    height - edge - ((value - low) / Math.max(1e-9, high - low)) * (height - 2 * edge);
  const perTurn = humpsPerTurn ?? 1;
  return (
    <span className="flex flex-wrap items-center gap-x-3">
      {turnAmps.length > 0 && (
        <svg
          viewBox={`0 0 ${width} ${height}`}
          width={width}
          height={height}
          role="img"
          aria-label={`One turn: ripple ${ripple.verdict}`}
        >
          {badHumps.map((hump) => (
            <rect
              key={hump}
              x={x(hump / perTurn)}
              y={0}
              width={(width - 2 * edge) / perTurn}
              height={height}
              fill="var(--mark)"
            />
          ))}
          <polyline
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
            points={turnAmps
              .map((value, i) => `${x((i + 0.5) / turnAmps.length).toFixed(1)},${y(value).toFixed(1)}`)
              .join(" ")}
          />
        </svg>
      )}
      <span>
        ripple {ripple.verdict}
        {badHumps.length > 0 ? ` (${badHumps.map((hump) => hump + 1).join(", ")} of ${perTurn})` : ""},{" "}
        {amps(ripple.meanAmps)}
        {ripple.rpm === null ? "" : `, ${rpm(ripple.rpm)}`}
      </span>
    </span>
  );
}

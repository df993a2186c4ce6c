import type { Circuit } from "@core/circuit/circuit";
import { colourStripes, wireColourWords } from "@core/circuit/wireColour";
import { memo } from "react";
import type { PlacedWire } from "./circuitLayout";
import type { PlacedLabel } from "./labelPlacement";
import { halo } from "./PointPort";
import type { SheetState } from "./sheetState";

/** IEC 60757 colours for painting, muted so that the core's colour for the voltage stays readable. */
const paint: Readonly<Record<string, string>> = {
  BK: "#2b2b2b",
  BN: "#7a5230",
  RD: "#b8352b",
  OG: "#d9822b",
  YE: "#d8b21e",
  GN: "#3f7d4a",
  BU: "#2f66a8",
  VT: "#7d5aa6",
  GY: "#8a8a8a",
  WH: "#f4f4f0",
  PK: "#d88aa4",
  TQ: "#3aa5a5",
};

/** The casing of a wire whose colour nobody has seen. */
const unknownPaint = "var(--rule)";

interface WireProps {
  readonly circuit: Circuit;
  readonly state: SheetState;
  readonly placed: PlacedWire;
  readonly fullVolts: number;
  /** Probability that it needs work. */
  readonly doubt: number;
  readonly chosen: boolean;
  /** True on the path lit from the path board. */
  readonly lit: boolean;
}

/** Slate at ground, amber at feed, by share of the battery's volts. */
function potentialColour(volts: number, fullVolts: number): string {
  const share = Math.round(Math.min(1, Math.max(0, volts / fullVolts)) * 100);
  return `color-mix(in oklab, var(--feed) ${share}%, var(--ground))`;
}

/**
 * A wire: the casing's colours along its edges, the core coloured by voltage, the width by current; rendered again
 * only when it changed.
 */
export const WireLine = memo(function WireLine(props: WireProps) {
  const { circuit, state, placed, fullVolts, doubt: p, chosen, lit } = props;
  const wire = circuit.wires.find(({ id }) => id === placed.id);
  if (!wire || placed.corners.length < 2) return null;
  const d = placed.corners.map(({ x, y }, i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("");
  const ends = [state.point.volts[`${wire.id}/from`], state.point.volts[`${wire.id}/to`]];
  const known = ends.filter((volts): volts is number => typeof volts === "number");
  const mean = known.length > 0 ? known.reduce((sum, volts) => sum + volts, 0) / known.length : null;
  const amps = Math.abs(state.point.amps[wire.id] ?? 0);
  const { base, tracer } = colourStripes(wire.colour);
  const casing = wire.assumed ? unknownPaint : paint[base];
  const words = wireColourWords(wire) ?? "colour not known";
  return (
    <g data-wire={wire.id} className="cursor-pointer">
      <path d={d} fill="none" stroke="transparent" strokeWidth={22} pointerEvents="stroke" />
      {lit && <path data-lit={wire.id} d={d} fill="none" stroke="var(--lit)" strokeWidth={20} />}
      {chosen && <path d={d} fill="none" stroke="var(--feed)" strokeWidth={16} opacity={0.5} />}
      <title>
        {state.bare
          ? `${wire.id}, ${words}`
          : `${wire.id}, ${words}, ${amps.toFixed(1)} A${mean === null ? ", floating" : ""}`}
      </title>
      {p >= 0.02 && (
        <path d={d} fill="none" stroke="url(#doubt-hatch)" strokeWidth={12 + 14 * p} opacity={0.7} />
      )}
      <path d={d} fill="none" stroke="var(--edge)" strokeWidth={9.4} />
      <path d={d} fill="none" stroke={casing} strokeWidth={8} />
      {tracer && !wire.assumed && (
        <path d={d} fill="none" stroke={paint[tracer]} strokeWidth={8} strokeDasharray="7 11" />
      )}
      <path d={d} fill="none" stroke="var(--card)" strokeWidth={5.4} />
      {state.bare ? (
        <path d={d} fill="none" stroke="var(--soft)" strokeWidth={1.6} />
      ) : mean === null ? (
        <path
          d={d}
          fill="none"
          stroke="var(--soft)"
          strokeWidth={3}
          strokeDasharray="0.5 6"
          strokeLinecap="round"
        />
      ) : (
        <path
          d={d}
          fill="none"
          stroke={potentialColour(mean, fullVolts)}
          strokeWidth={Math.min(5, 1.6 + amps / 4)}
        />
      )}
      {placed.label && <WireLabel label={placed.label} code={wire.id} />}
    </g>
  );
});

/** A wire's code and colour; the outline keeps it legible where a line passes close by. */
function WireLabel({ label, code }: { label: PlacedLabel; code: string }) {
  return (
    <g {...halo} fontSize={14.5} fill="var(--soft)">
      {label.lines.map((line, row) => (
        <text key={line} x={label.x + 2} y={label.y + 12.5 + 16 * row}>
          {line.startsWith(code) ? (
            <>
              <tspan fontWeight={650}>{code}</tspan>
              {line.slice(code.length)}
            </>
          ) : (
            line
          )}
        </text>
      ))}
    </g>
  );
}

import type { Circuit } from "@core/circuit/circuit";
import { colourStripes, colourWords } from "@core/circuit/wireColour";
import { percent } from "@core/units/wording";
import type { CircuitLayout, PlacedPart, PlacedWire } from "./circuitLayout.server";
import { PartSymbol } from "./PartSymbol";
import { PointPort } from "./PointPort";
import type { PartDoubt, SheetState } from "./sheetState";
import { directions, nearestIn } from "./walkPoints";

/** IEC 60757 colours as paint, muted enough to leave the state's own core readable. */
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

export interface SheetProps {
  readonly circuit: Circuit;
  readonly layout: CircuitLayout;
  readonly state: SheetState;
  readonly doubt: PartDoubt;
  /** Parts, plugs and wires cleared by what was seen. */
  readonly cleared: ReadonlySet<string>;
  /** Point the next look touches. */
  readonly probe: string | null;
  readonly fullVolts: number;
  /** Size against the layout's own; null fits the whole sheet in. */
  readonly zoom: number | null;
  /** Part lit from the path board. */
  readonly lit: string | null;
  /** Point tapped, and what a tap does. */
  readonly chosen: string | null;
  readonly onPoint: (point: string) => void;
}

/** The circuit of this vehicle, feed at the top and ground at the bottom, with its state on top. */
export function CircuitSheet(props: SheetProps) {
  const { circuit, layout, state } = props;
  const plugs = pinsByTerminal(circuit);
  const [first] = layout.parts.flatMap(({ id, shape }) =>
    shape.ports.map(({ terminal }) => `${id}.${terminal}`).filter((terminal) => isWired(circuit, terminal)),
  );
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in for an SVG
    <svg
      viewBox={`${layout.x} ${layout.y} ${layout.width} ${layout.height}`}
      preserveAspectRatio="xMidYMid meet"
      className={props.zoom === null ? "size-full" : "mx-auto block"}
      {...(props.zoom === null
        ? {}
        : { width: layout.width * props.zoom, height: layout.height * props.zoom })}
      role="group"
      aria-label={sheetWords(circuit, state)}
      onKeyDown={(event) => walk(event.currentTarget, event)}
      onClick={(event) => {
        const near = pointNear(event.currentTarget, event);
        if (near) props.onPoint(near);
      }}
    >
      <defs>
        <pattern
          id="doubt-hatch"
          width="7"
          height="7"
          patternTransform="rotate(45)"
          patternUnits="userSpaceOnUse"
        >
          <rect width="3" height="7" fill="var(--doubt)" />
        </pattern>
      </defs>
      {layout.wires.map((placed) => (
        <Wire key={placed.id} {...props} placed={placed} />
      ))}
      {layout.parts.map((placed) => (
        <PlacedSymbol key={placed.id} {...props} placed={placed} plugs={plugs} first={first ?? ""} />
      ))}
    </svg>
  );
}

const pointsOf = (sheet: SVGSVGElement): SVGElement[] => [
  ...sheet.querySelectorAll<SVGElement>("[data-point]"),
];

/** Middle of a point on the screen. */
function placeOf(point: SVGElement): { x: number; y: number } {
  const { x, y, width, height } = point.getBoundingClientRect();
  return { x: x + width / 2, y: y + height / 2 };
}

/** A finger's width on the screen, in pixels. */
const reach = 30;

/** The point nearest to a tap, if one is within a finger's reach. */
function pointNear(sheet: SVGSVGElement, { clientX, clientY }: React.MouseEvent): string | null {
  let best: string | null = null;
  let least = reach;
  for (const point of pointsOf(sheet)) {
    const { x, y } = placeOf(point);
    const far = Math.hypot(x - clientX, y - clientY);
    if (far < least) [best, least] = [point.getAttribute("data-point"), far];
  }
  return best;
}

/** Arrows walk from point to point; the point walked to has the focus and is read out. */
function walk(sheet: SVGSVGElement, event: React.KeyboardEvent): void {
  const direction = directions[event.key];
  const points = pointsOf(sheet);
  const from = points.indexOf(document.activeElement as SVGElement);
  if (!direction || from < 0) return;
  event.preventDefault();
  points[nearestIn(direction, from, points.map(placeOf))]?.focus();
}

function sheetWords(circuit: Circuit, { key, setting, point }: SheetState): string {
  const running = Object.entries(point.rpm).map(
    ([id, rpm]) => `${id} ${rpm > 1 ? `at ${Math.round(rpm)} rpm` : "still"}`,
  );
  return `${circuit.title}; key ${key}, ${setting}: ${running.join(", ")}`;
}

/** Terminal → its plug and pin. */
function pinsByTerminal(circuit: Circuit): Map<string, { plug: string; pin: string }> {
  return new Map(
    circuit.connectors.flatMap(({ id, pins }) =>
      Object.entries(pins).map(([pin, terminal]) => [terminal, { plug: id, pin }] as const),
    ),
  );
}

/** Slate at ground, amber at feed, by share of the battery's volts. */
function potentialColour(volts: number, fullVolts: number): string {
  const share = Math.round(Math.min(1, Math.max(0, volts / fullVolts)) * 100);
  return `color-mix(in oklab, var(--feed) ${share}%, var(--ground))`;
}

function Wire({ circuit, state, placed, fullVolts, doubt }: SheetProps & { placed: PlacedWire }) {
  const wire = circuit.wires.find(({ id }) => id === placed.id);
  if (!wire || placed.corners.length < 2) return null;
  const d = placed.corners.map(({ x, y }, i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("");
  const ends = [state.point.volts[`${wire.id}/from`], state.point.volts[`${wire.id}/to`]];
  const known = ends.filter((volts): volts is number => typeof volts === "number");
  const mean = known.length > 0 ? known.reduce((sum, volts) => sum + volts, 0) / known.length : null;
  const amps = Math.abs(state.point.amps[wire.id] ?? 0);
  const { base, tracer } = colourStripes(wire.colour);
  const p = doubt[wire.id] ?? 0;
  return (
    <g>
      <title>{`${wire.id}, ${colourWords(wire.colour)}, ${amps.toFixed(1)} A${mean === null ? ", floating" : ""}`}</title>
      {p >= 0.02 && (
        <path d={d} fill="none" stroke="url(#doubt-hatch)" strokeWidth={12 + 14 * p} opacity={0.7} />
      )}
      <path d={d} fill="none" stroke="var(--edge)" strokeWidth={9.4} />
      <path d={d} fill="none" stroke={paint[base]} strokeWidth={8} />
      {tracer && <path d={d} fill="none" stroke={paint[tracer]} strokeWidth={8} strokeDasharray="7 11" />}
      <path d={d} fill="none" stroke="var(--card)" strokeWidth={5.4} />
      {mean === null ? (
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
      {placed.label && (
        <text x={placed.label.x + 2} y={placed.label.y + 12.5} fontSize={14.5} fill="var(--soft)">
          <tspan fontWeight={650}>{wire.id}</tspan> {wire.colour}
        </text>
      )}
    </g>
  );
}

interface PlacedProps extends SheetProps {
  readonly placed: PlacedPart;
  readonly plugs: ReadonlyMap<string, { plug: string; pin: string }>;
  /** Terminal the keyboard comes to first. */
  readonly first: string;
}

function PlacedSymbol(props: PlacedProps) {
  const { circuit, state, placed, plugs, doubt, cleared, probe, lit, chosen, onPoint, first } = props;
  const part = circuit.parts.find(({ id }) => id === placed.id);
  if (!part) return null;
  const { shape } = placed;
  const own = doubt[part.id] ?? 0;
  const pulled = Math.abs(state.point.amps[`${part.id}.coil`] ?? 0) > 0.03;
  return (
    <g transform={`translate(${placed.x} ${placed.y})`}>
      <title>{own >= 0.005 ? `${part.id}: ${percent(own)}` : part.id}</title>
      {lit === part.id && (
        <rect
          data-lit={part.id}
          x={-10}
          y={-8}
          width={shape.width + 16}
          height={shape.height + 16}
          rx={10}
          fill="var(--mark)"
          stroke="var(--feed)"
          strokeWidth={3}
        />
      )}
      {own >= 0.02 && (
        <rect
          x={-6}
          y={-4}
          width={shape.width + 8}
          height={shape.height + 8}
          rx={8}
          fill="none"
          stroke="url(#doubt-hatch)"
          strokeWidth={5 + 12 * own}
        />
      )}
      <PartSymbol
        circuit={circuit}
        part={part}
        shape={shape}
        setting={state.setting}
        keyOn={state.key === "run"}
        pulled={pulled}
        turning={(state.point.rpm[part.id] ?? 0) > 1}
      />
      {own >= 0.02 && (
        <text
          x={shape.width - 2}
          y={part.kind === "resistor" ? 28 : 12}
          textAnchor="end"
          fontSize={17}
          fontWeight={700}
          fill="var(--doubt)"
        >
          {percent(own)}
        </text>
      )}
      {own < 0.02 && cleared.has(part.id) && part.kind !== "splice" && (
        <path d={`M${shape.width - 18} 8l5 6 9 -11`} fill="none" stroke="var(--good)" strokeWidth={2.6} />
      )}
      {shape.ports
        .filter(({ terminal }) => isWired(circuit, `${part.id}.${terminal}`))
        .map((port) => (
          <PointPort
            key={port.terminal}
            {...{ circuit, port, state, plugs, doubt, probe, chosen, onPoint, first }}
            part={part.id}
            height={shape.height}
          />
        ))}
    </g>
  );
}

const isWired = (circuit: Circuit, terminal: string): boolean =>
  circuit.wires.some(({ from, to }) => from === terminal || to === terminal);

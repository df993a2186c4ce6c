import type { Circuit } from "@core/circuit/circuit";
import { colourStripes, colourWords } from "@core/circuit/wireColour";
import { percent } from "@core/units/wording";
import { useRef } from "react";
import type { ProbeTarget } from "../components/probeTarget";
import type { CircuitLayout, PlacedPart, PlacedWire } from "./circuitLayout";
import type { PlacedLabel } from "./labelPlacement";
import { PartSymbol } from "./PartSymbol";
import { halo, PointPort } from "./PointPort";
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
  /** Part lit from the path board. */
  readonly lit: string | null;
  /** What was tapped: a point, a part or a wire. */
  readonly chosen: string | null;
  /** The other lead's point. */
  readonly other: string | null;
  /** Plugs, fuses and relays that are out. */
  readonly unplugged: readonly string[];
  readonly onTarget: (target: ProbeTarget) => void;
}

/** The circuit of this vehicle, feed at the top and ground at the bottom, with its state on top. */
export function CircuitSheet(props: SheetProps) {
  const { circuit, layout, state } = props;
  const plugs = pinsByTerminal(circuit);
  const down = useRef<{ x: number; y: number } | null>(null);
  const [first] = layout.parts.flatMap(({ id, shape }) =>
    shape.ports.map(({ terminal }) => `${id}.${terminal}`).filter((terminal) => isWired(circuit, terminal)),
  );
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in for an SVG
    <svg
      viewBox={`${layout.x} ${layout.y} ${layout.width} ${layout.height}`}
      preserveAspectRatio="xMidYMid meet"
      className="airway-sheet size-full"
      role="group"
      aria-label={sheetWords(circuit, state)}
      onKeyDown={(event) => walk(event.currentTarget, event)}
      onPointerDown={(event) => {
        down.current = { x: event.clientX, y: event.clientY };
      }}
      onClick={(event) => {
        const from = down.current;
        // A drag pans; only a tap puts the probe somewhere.
        if (from && Math.hypot(event.clientX - from.x, event.clientY - from.y) > dragged) return;
        const target = targetNear(event.currentTarget, event);
        if (target) props.onTarget(target);
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

/** A finger's width on the screen, in pixels; a pointer that moved further was dragging. */
const reach = 30;
const dragged = 8;

/** What a tap meant: the nearest point within reach, else the wire or part under it. */
function targetNear(sheet: SVGSVGElement, event: React.MouseEvent): ProbeTarget | null {
  const wire = (event.target as Element).closest("[data-wire]")?.getAttribute("data-wire");
  const part = (event.target as Element).closest("[data-part]")?.getAttribute("data-part");
  const near = pointNear(sheet, event, wire || part ? pointReach : reach);
  if (near) return { kind: "point", name: near };
  if (part) return { kind: "part", id: part };
  return wire ? { kind: "wire", id: wire } : null;
}

/** On a wire or a part only a tap close to a point is meant for it. */
const pointReach = 16;

/** The point nearest to a tap, if one is within a finger's reach. */
function pointNear(
  sheet: SVGSVGElement,
  { clientX, clientY }: React.MouseEvent,
  within: number,
): string | null {
  let best: string | null = null;
  let least = within;
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

function Wire({ circuit, state, placed, fullVolts, doubt, chosen }: SheetProps & { placed: PlacedWire }) {
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
    <g data-wire={wire.id} className="cursor-pointer">
      <path d={d} fill="none" stroke="transparent" strokeWidth={22} pointerEvents="stroke" />
      {chosen === wire.id && <path d={d} fill="none" stroke="var(--feed)" strokeWidth={16} opacity={0.5} />}
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
      {placed.label && <WireLabel label={placed.label} code={wire.id} />}
    </g>
  );
}

/** A wire's code and colour; the halo keeps it legible where a line passes close by. */
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

/** Where the probe's bulb hides no wire's code: to the left, or to the right. */
function bulbSide(
  { wires }: CircuitLayout,
  { x, y, shape }: PlacedPart,
  port: PlacedPart["shape"]["ports"][number],
): -1 | 1 {
  const [cx, cy] = [x + port.x, port.side === "north" ? y - 29 : y + shape.height + 29];
  const hides = (side: -1 | 1): boolean =>
    wires.some(
      ({ label }) =>
        label !== null &&
        Math.abs(label.x + label.width / 2 - (cx + side * 36)) < label.width / 2 + 12 &&
        Math.abs(label.y + label.height / 2 - cy) < label.height / 2 + 12,
    );
  return hides(-1) && !hides(1) ? 1 : -1;
}

interface PlacedProps extends SheetProps {
  readonly placed: PlacedPart;
  readonly plugs: ReadonlyMap<string, { plug: string; pin: string }>;
  /** Terminal the keyboard comes to first. */
  readonly first: string;
}

function PlacedSymbol(props: PlacedProps) {
  const { circuit, state, placed, plugs, doubt, cleared, lit, chosen, first } = props;
  const part = circuit.parts.find(({ id }) => id === placed.id);
  if (!part) return null;
  const { shape } = placed;
  const own = doubt[part.id] ?? 0;
  const pulled = Math.abs(state.point.amps[`${part.id}.coil`] ?? 0) > 0.03;
  return (
    <g transform={`translate(${placed.x} ${placed.y})`} data-part={part.id} className="cursor-pointer">
      <rect width={shape.width} height={shape.height} fill="transparent" />
      {chosen === part.id && (
        <rect
          x={-8}
          y={-6}
          width={shape.width + 12}
          height={shape.height + 12}
          rx={8}
          fill="none"
          stroke="var(--feed)"
          strokeWidth={4}
        />
      )}
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
            {...props}
            {...{ port, plugs, first }}
            bulb={bulbSide(props.layout, placed, port)}
            part={part.id}
            height={shape.height}
          />
        ))}
    </g>
  );
}

const isWired = (circuit: Circuit, terminal: string): boolean =>
  circuit.wires.some(({ from, to }) => from === terminal || to === terminal);

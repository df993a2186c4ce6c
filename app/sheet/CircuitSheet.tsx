import type { Circuit } from "@core/circuit/circuit";
import { useMemo, useRef } from "react";
import { PlacedSymbol } from "./PlacedSymbol";
import type { ProbeTarget } from "./probeTarget";
import type { SheetProps } from "./sheetProps";
import type { SheetState } from "./sheetState";
import { isWired } from "./symbolShape";
import { WireLine } from "./WireLine";
import { directions, nearestIn } from "./walkPoints";

/** The circuit of this vehicle, feed at the top and ground at the bottom, with its state shown on it. */
export function CircuitSheet(props: SheetProps) {
  const { circuit, layout, state } = props;
  const plugs = useMemo(() => pinsByTerminal(circuit), [circuit]);
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
        // A drag pans; only a tap places the probe.
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
        <WireLine
          key={placed.id}
          {...{ circuit, state, placed }}
          fullVolts={props.fullVolts}
          doubt={props.doubt[placed.id] ?? 0}
          chosen={props.chosen === placed.id}
          lit={props.lit.has(placed.id)}
        />
      ))}
      {layout.parts.map((placed) => (
        <PlacedSymbol key={placed.id} {...props} {...{ placed, plugs }} first={first ?? ""} />
      ))}
    </svg>
  );
}

const pointsOf = (sheet: SVGSVGElement): SVGElement[] => [
  ...sheet.querySelectorAll<SVGElement>("[data-point]"),
];

/** Centre of a point on the screen. */
function placeOf(point: SVGElement): { x: number; y: number } {
  const { x, y, width, height } = point.getBoundingClientRect();
  return { x: x + width / 2, y: y + height / 2 };
}

/** Width of a fingertip in pixels; a pointer that moved further was dragging. */
const reach = 30;
const dragged = 8;

/** The target of a tap: the nearest point within reach, otherwise the wire or part under it. */
function targetNear(sheet: SVGSVGElement, event: React.MouseEvent): ProbeTarget | null {
  const wire = (event.target as Element).closest("[data-wire]")?.getAttribute("data-wire");
  const part = (event.target as Element).closest("[data-part]")?.getAttribute("data-part");
  const near = pointNear(sheet, event, wire || part ? pointReach : reach);
  if (near) return { kind: "point", name: near };
  if (part) return { kind: "part", id: part };
  return wire ? { kind: "wire", id: wire } : null;
}

/** On a wire or a part, only a tap close to a point selects the point. */
const pointReach = 16;

/** The point nearest to a tap, if one is within a fingertip's reach. */
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

/** Arrow keys move from point to point; the current point has the focus and is read out. */
function walk(sheet: SVGSVGElement, event: React.KeyboardEvent): void {
  const direction = directions[event.key];
  const points = pointsOf(sheet);
  const from = points.indexOf(document.activeElement as SVGElement);
  if (!direction || from < 0) return;
  event.preventDefault();
  points[nearestIn(direction, from, points.map(placeOf))]?.focus();
}

function sheetWords(circuit: Circuit, { key, setting, point, bare }: SheetState): string {
  if (bare) return `${circuit.title}; the wiring, key ${key}, ${setting}`;
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

import type { Part, PartKind } from "@core/circuit/parts/index";
import { percent } from "@core/units/wording";
import { memo } from "react";
import type { CircuitLayout, PlacedPart } from "./circuitLayout";
import { PartSymbol } from "./PartSymbol";
import { PointPort } from "./PointPort";
import type { SheetProps } from "./sheetProps";
import { isWired } from "./symbolShape";

/** The side of the probe's bulb that hides no wire's code: left or right. */
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

/** Position of the probability, clear of the symbol's own text: in the top corner by default. */
export const percentY: Readonly<Partial<Record<PartKind, number>>> = { resistor: 28, ground: 40 };

interface PlacedProps extends SheetProps {
  readonly placed: PlacedPart;
  readonly plugs: ReadonlyMap<string, { plug: string; pin: string }>;
  /** The terminal that receives the keyboard focus first. */
  readonly first: string;
}

/** A part on the sheet with its points and its probability; rendered again only when something of its own changed. */
export const PlacedSymbol = memo(function PlacedSymbol(props: PlacedProps) {
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
        <Frame
          width={shape.width}
          height={shape.height}
          by={7}
          fill="none"
          stroke="var(--feed)"
          strokeWidth={4}
        />
      )}
      <title>{own >= 0.005 ? `${part.id}: ${percent(own)}` : part.id}</title>
      {lit.has(part.id) && (
        <Frame width={shape.width} height={shape.height} by={9} fill="var(--lit)" data-lit={part.id} />
      )}
      {own >= 0.02 && (
        <Frame
          width={shape.width}
          height={shape.height}
          by={5}
          fill="none"
          stroke="url(#doubt-hatch)"
          strokeWidth={5 + 12 * own}
        />
      )}
      <OwnSymbol circuit={circuit} part={part} shape={shape} state={state} pulled={pulled} />
      {own >= 0.02 && <DoubtMark shape={shape} part={part} own={own} />}
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
}, unchanged);

interface FrameProps extends React.SVGProps<SVGRectElement> {
  readonly width: number;
  readonly height: number;
  /** Its distance outside the symbol's box. */
  readonly by: number;
}

/** A frame round a symbol. */
function Frame({ width, height, by, ...paint }: FrameProps) {
  return (
    <rect x={-by} y={-by + 1} width={width + 2 * by - 2} height={height + 2 * by - 2} rx={8} {...paint} />
  );
}

/** Everything on the sheet with a part's name: itself, its points, its plugs and their pins. */
function namesOf({ circuit, placed }: PlacedProps): readonly string[] {
  const plugs = circuit.connectors.filter(({ pins }) =>
    Object.values(pins).some((terminal) => terminal.startsWith(`${placed.id}.`)),
  );
  return [
    placed.id,
    ...placed.shape.ports.map(({ terminal }) => `${placed.id}.${terminal}`),
    ...plugs.flatMap(({ id, pins }) => [id, ...Object.keys(pins).map((pin) => `${id}:${pin}`)]),
  ];
}

/** True if nothing of this part changed; most readings change only a few parts. */
function unchanged(before: PlacedProps, now: PlacedProps): boolean {
  if (before.circuit !== now.circuit || before.layout !== now.layout || before.state !== now.state)
    return false;
  if (before.onTarget !== now.onTarget || before.first !== now.first) return false;
  const names = namesOf(now);
  const own = (name: string | null): string | null => (name !== null && names.includes(name) ? name : null);
  const marked = ({ probe, chosen, other, lit, placed }: PlacedProps) =>
    [...[probe, chosen, other].map(own), lit.has(placed.id)].join();
  // Without a selection the keyboard reaches the first point.
  const entered = ({ chosen, first }: PlacedProps): boolean => chosen === null && names.includes(first);
  return (
    marked(before) === marked(now) &&
    entered(before) === entered(now) &&
    names.every(
      (name) =>
        before.doubt[name] === now.doubt[name] &&
        before.cleared.has(name) === now.cleared.has(name) &&
        before.unplugged.includes(name) === now.unplugged.includes(name),
    )
  );
}

interface OwnSymbolProps {
  readonly circuit: PlacedProps["circuit"];
  readonly part: Part;
  readonly shape: PlacedProps["placed"]["shape"];
  readonly state: PlacedProps["state"];
  readonly pulled: boolean;
}

/** The part's own symbol. */
function OwnSymbol({ circuit, part, shape, state, pulled }: OwnSymbolProps) {
  return (
    <PartSymbol
      circuit={circuit}
      part={part}
      shape={shape}
      setting={state.setting}
      keyOn={state.key === "run"}
      pulled={pulled}
      turning={(state.point.rpm[part.id] ?? 0) > 1}
      bare={state.bare === true}
    />
  );
}

interface DoubtMarkProps {
  readonly shape: PlacedProps["placed"]["shape"];
  readonly part: Part;
  readonly own: number;
}

/** Probability that the part is faulty. */
function DoubtMark({ shape, part, own }: DoubtMarkProps) {
  return (
    <text
      x={shape.width - 2}
      y={percentY[part.kind] ?? 12}
      textAnchor="end"
      fontSize={17}
      fontWeight={700}
      fill="var(--doubt)"
    >
      {percent(own)}
    </text>
  );
}

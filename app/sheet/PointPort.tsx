import type { Circuit } from "@core/circuit/circuit";
import { voltsText } from "@core/units/wording";
import type { PlacedPart } from "./circuitLayout";
import type { SheetProps } from "./sheetProps";
import type { SheetState } from "./sheetState";

interface PortProps
  extends Pick<
    SheetProps,
    "circuit" | "state" | "doubt" | "probe" | "chosen" | "other" | "unplugged" | "onTarget"
  > {
  readonly plugs: ReadonlyMap<string, { plug: string; pin: string }>;
  /** The side of the probe's bulb: -1 for left. */
  readonly bulb: -1 | 1;
  /** The terminal that receives the keyboard focus first. */
  readonly first: string;
  readonly port: PlacedPart["shape"]["ports"][number];
  readonly part: string;
  readonly height: number;
}

/** True if the wire from above brings the same volts, so that one figure is enough. */
function sameAbove(circuit: Circuit, { point }: SheetState, terminal: string, volts: number | null): boolean {
  const wire = circuit.wires.find(({ from, to }) => from === terminal || to === terminal);
  if (!wire) return false;
  const other = point.volts[wire.from === terminal ? wire.to : wire.from];
  if (other === undefined || other === null || volts === null) return other === volts;
  return Math.abs(other - volts) < 0.05;
}

/** Text over lines, with an outline in the paper's colour around each letter. */
export const halo = {
  paintOrder: "stroke",
  stroke: "var(--card)",
  strokeWidth: 4,
  strokeLinejoin: "round",
} as const;

/** Side of a point's square on the sheet; a tap nearby counts as well. */
const pointSize = 26;

/** A terminal on the sheet: its plug's pin, its volts, and the probe if it is there; a tap places the probe on it. */
export function PointPort(props: PortProps) {
  const { circuit, port, part, height, state, plugs, doubt, probe, chosen, other, first, bulb } = props;
  const terminal = `${part}.${port.terminal}`;
  const plugged = plugs.get(terminal);
  const name = plugged ? `${plugged.plug}:${plugged.pin}` : terminal;
  const volts = state.point.volts[name];
  const said = state.bare ? name : `${name}: ${typeof volts === "number" ? voltsText(volts) : "floating"}`;
  const y = port.side === "north" ? 0 : height;
  const away = port.side === "north" ? -1 : 1;
  const suspected = plugged ? (doubt[plugged.plug] ?? 0) : 0;
  const pulled = plugged !== undefined && props.unplugged.includes(plugged.plug);
  if (volts === undefined && !state.bare) return null;
  const shown = volts !== undefined && (port.side === "south" || !sameAbove(circuit, state, terminal, volts));
  return (
    <g>
      <title>{said}</title>
      {plugged && (
        <PlugMark suspected={suspected} port={port} y={y} away={away} pulled={pulled} plugged={plugged} />
      )}
      {shown && <PortVolts port={port} height={height} volts={volts} />}
      {(chosen === name || chosen === terminal) && (
        <circle cx={port.x} cy={y + away * 7} r={15} fill="none" stroke="var(--feed)" strokeWidth={4} />
      )}
      {(other === name || other === terminal) && (
        <circle
          data-other={other}
          cx={port.x}
          cy={y + away * 7}
          r={15}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={4}
        />
      )}
      <PointTarget
        name={name}
        terminal={terminal}
        chosen={chosen}
        first={first}
        said={said}
        port={port}
        y={y}
        away={away}
        props={props}
      />
      {(probe === name || probe === terminal) && (
        <ProbeMark probe={probe} port={port} y={y} away={away} bulb={bulb} />
      )}
    </g>
  );
}

interface PlugMarkProps {
  readonly suspected: number;
  readonly port: PortProps["port"];
  readonly y: number;
  readonly away: 1 | -1;
  readonly pulled: boolean;
  readonly plugged: { plug: string; pin: string };
}

/** The plug at a point, and its probability of being faulty. */
function PlugMark({ suspected, port, y, away, pulled, plugged }: PlugMarkProps) {
  return (
    <g>
      {suspected >= 0.02 && (
        <circle cx={port.x} cy={y + away * 7} r={11 + 4 * suspected} fill="url(#doubt-hatch)" opacity={0.8} />
      )}
      <rect
        x={port.x - 8}
        y={y + away * 7 - 7}
        width={16}
        height={14}
        rx={2}
        fill={pulled ? "none" : "var(--card)"}
        stroke="var(--ink)"
        strokeWidth={1.6}
        strokeDasharray={pulled ? "3 3" : undefined}
      />
      <text
        x={port.x}
        y={y + away * 7 + 4.5}
        textAnchor="middle"
        fontSize={12}
        fontWeight={650}
        fill="var(--ink)"
      >
        {plugged.pin}
      </text>
    </g>
  );
}

interface PointTargetProps {
  readonly name: string;
  readonly terminal: string;
  readonly chosen: PortProps["chosen"];
  readonly first: PortProps["first"];
  readonly said: string;
  readonly port: PortProps["port"];
  readonly y: number;
  readonly away: 1 | -1;
  readonly props: PortProps;
}

/** The tappable area of a point. */
function PointTarget({ name, terminal, chosen, first, said, port, y, away, props }: PointTargetProps) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button element cannot stand in an SVG
    <rect
      data-point={name}
      data-terminal={terminal}
      role="button"
      tabIndex={chosen === name || (chosen === null && first === terminal) ? 0 : -1}
      aria-label={said}
      aria-pressed={chosen === name}
      x={port.x - pointSize / 2}
      y={y + away * 7 - pointSize / 2}
      width={pointSize}
      height={pointSize}
      rx={6}
      fill="transparent"
      className="cursor-pointer"
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        props.onTarget({ kind: "point", name });
      }}
    />
  );
}

interface ProbeMarkProps {
  readonly probe: PortProps["probe"];
  readonly port: PortProps["port"];
  readonly y: number;
  readonly away: 1 | -1;
  readonly bulb: PortProps["bulb"];
}

/** A probe on the point: a lamp's bulb, or a tip. */
function ProbeMark({ probe, port, y, away, bulb }: ProbeMarkProps) {
  return (
    <g data-probe={probe} className="pointer-events-none">
      <path
        d={`M${port.x} ${y + away * 7}l${30 * bulb} ${away * 18}`}
        stroke="var(--ink)"
        strokeWidth={3.4}
      />
      <circle
        cx={port.x + 36 * bulb}
        cy={y + away * 29}
        r={10}
        fill="var(--go)"
        stroke="var(--ink)"
        strokeWidth={2.2}
      />
    </g>
  );
}

interface PortVoltsProps {
  readonly port: PortProps["port"];
  readonly height: PortProps["height"];
  readonly volts: number | null;
}

/** The volts at the point. */
function PortVolts({ port, height, volts }: PortVoltsProps) {
  return (
    <text
      x={port.x + 12}
      y={port.side === "north" ? -4 : height + 15}
      fontSize={15}
      fontFamily="var(--font-mono)"
      fontWeight={600}
      fill="var(--ink)"
      {...halo}
    >
      {volts === null ? "···" : volts.toFixed(1)}
    </text>
  );
}

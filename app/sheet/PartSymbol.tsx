import type { Circuit } from "@core/circuit/circuit";
import type { Part, PartOf } from "@core/circuit/parts/index";
import { fuseWords, inlinePitch, packChain, packX, restingX, type SymbolShape } from "./symbolShape";

interface SymbolProps {
  readonly circuit: Circuit;
  readonly part: Part;
  readonly shape: SymbolShape;
  /** The setting and key position shown by the switches. */
  readonly setting: string;
  readonly keyOn: boolean;
  /** Relays that are pulled in, by id. */
  readonly pulled: boolean;
  readonly turning: boolean;
  /** True if it is unknown what turns and what is pulled in. */
  readonly bare: boolean;
}

const line = { stroke: "var(--ink)", strokeWidth: 2.2, fill: "none" } as const;
const body = { stroke: "var(--ink)", strokeWidth: 2.2, fill: "var(--card)" } as const;

/** A part's symbol after IEC 60617, in its own coordinates. */
export function PartSymbol(props: SymbolProps) {
  const { part, shape } = props;
  switch (part.kind) {
    case "battery":
      return <BatterySymbol part={part} />;
    case "ground":
      return <GroundSymbol part={part} />;
    case "fuse":
      return <FuseSymbol part={part} />;
    case "motor":
      return <MotorSymbol part={part} bare={props.bare} turning={props.turning} />;
    case "relay":
      return <RelaySymbol {...props} id={part.id} />;
    case "ignition":
      return (
        <SwitchSymbol
          {...props}
          first="30"
          closed={(terminal) => props.keyOn && (part.closes.run ?? []).includes(terminal)}
          label={part.id}
          soft={props.keyOn ? "run" : "out"}
        />
      );
    case "selector":
      return (
        <SwitchSymbol
          {...props}
          first={part.common}
          closed={(terminal) => (part.closes[part.settings?.[0] ?? props.setting] ?? []).includes(terminal)}
          label={part.id}
          soft={`on ${part.settings?.[0] ?? props.setting}`}
        />
      );
    case "resistor":
      return <PackSymbol part={part} shape={shape} />;
    case "inline":
      return <InlineSymbol part={part} />;
    case "splice":
      return <circle cx={5} cy={5} r={5} fill="var(--ink)" />;
    case "module":
      return (
        <BoxSymbol
          {...props}
          name={part.id}
          kind={part.drive === "pwm" ? "PWM control module" : "linear control module"}
          sign={part.drive === "pwm" ? "M150 36h8v-14h12v14h8v-14h12v14h8" : "M150 38L198 20"}
        />
      );
    case "head":
      return (
        <BoxSymbol {...props} name={part.id} kind="panel" sign="M150 38a22 22 0 0 1 38 -14M169 38L184 24" />
      );
  }
}

const BatterySymbol = ({ part }: { readonly part: PartOf<"battery"> }) => (
  <g>
    <path d="M8 18H40M16 26H32M24 26V44M24 18V2" {...line} />
    <Label x={50} y={20} text={part.id} />
    {!part.assumed && <Label x={50} y={38} text={`${part.restVolts} V`} soft />}
  </g>
);

const GroundSymbol = ({ part }: { readonly part: PartOf<"ground"> }) => (
  <g>
    <path d="M18 0V10M4 10H32M9 16H27M14 22H22" {...line} />
    <Label x={36} y={20} text={part.id} />
    {part.place && <Label x={62} y={20} text={part.place} soft />}
  </g>
);

const FuseSymbol = ({ part }: { readonly part: PartOf<"fuse"> }) => (
  <g>
    <rect x={7} y={5} width={18} height={34} {...body} />
    <path d="M16 0V44" {...line} strokeWidth={1.6} />
    <Label x={34} y={18} text={part.id} />
    <Label x={34} y={36} text={fuseWords(part)} soft />
  </g>
);

interface MotorSymbolProps extends Pick<SymbolProps, "bare" | "turning"> {
  readonly part: PartOf<"motor">;
}

const MotorSymbol = ({ part, bare, turning }: MotorSymbolProps) => (
  <g>
    <path d="M30 0V4M30 56V60" {...line} />
    <circle cx={30} cy={30} r={25} {...body} />
    <text x={30} y={37} textAnchor="middle" fontSize={20} fontWeight={650} fill="var(--ink)">
      M
    </text>
    <Label x={62} y={28} text={part.id} />
    {!bare && <Label x={62} y={46} text={turning ? "turns" : "still"} soft />}
  </g>
);

const InlineSymbol = ({ part }: { readonly part: PartOf<"inline"> }) => (
  <g>
    {part.pins.map((pin, i) => (
      <g key={pin}>
        <path d={`M${18 + inlinePitch * i} 0V30`} {...line} strokeWidth={1.6} />
        <path d={`M${11 + inlinePitch * i} 9q7 9 14 0M${11 + inlinePitch * i} 17q7 9 14 0`} {...line} />
      </g>
    ))}
    <Label x={inlinePitch * part.pins.length + 8} y={20} text={part.id} />
  </g>
);

/** A box with its terminals named inside, and a sign for its function. */
function BoxSymbol({
  shape,
  name,
  kind,
  sign,
}: SymbolProps & { readonly name: string; readonly kind: string; readonly sign: string }) {
  return (
    <g>
      <rect x={4} y={4} width={shape.width - 8} height={shape.height - 8} {...body} />
      <path d={sign} {...line} strokeWidth={1.8} />
      {shape.ports.map(({ terminal, x, side }) => (
        <g key={terminal}>
          <path d={side === "north" ? `M${x} 0V4` : `M${x} ${shape.height - 4}V${shape.height}`} {...line} />
          <text
            x={x}
            y={side === "north" ? 18 : shape.height - 9}
            textAnchor="middle"
            fontSize={13}
            fill="var(--soft)"
          >
            {terminal}
          </text>
        </g>
      ))}
      <Label x={14} y={40} text={name} />
      <Label x={14} y={57} text={kind} soft />
    </g>
  );
}

function Label({ x, y, text, soft = false }: { x: number; y: number; text: string; soft?: boolean }) {
  return (
    <text
      x={x}
      y={y}
      fontSize={soft ? 15.5 : 18}
      fontWeight={soft ? 450 : 650}
      fill={soft ? "var(--soft)" : "var(--ink)"}
    >
      {text}
    </text>
  );
}

function RelaySymbol({ id, shape, pulled, bare }: SymbolProps & { id: string }) {
  const fed = shape.ports.find(({ terminal }) => terminal === "30")?.side !== "south";
  const working = shape.ports.find(({ terminal }) => terminal === "87a");
  const right = working ? restingX + 8 : 118;
  const tip = pulled ? 84 : working ? 108 : 98;
  return (
    <g>
      <rect x={8} y={18} width={32} height={24} {...body} />
      <path d="M24 0V18M24 42V60M12 40L36 20" {...line} strokeWidth={1.8} />
      <path d="M40 30H88" {...line} strokeWidth={1.4} strokeDasharray="4 3" />
      <g transform={fed ? undefined : "matrix(1 0 0 -1 0 60)"}>
        <path d={`M84 0V12M84 48V60M84 48 L84 44 M84 12L${tip} ${pulled ? 46 : 42}`} {...line} />
        {working && <path d={`M${restingX} 60V46H108V44H104`} {...line} />}
        <circle cx={84} cy={12} r={3} fill="var(--ink)" />
        <circle cx={84} cy={48} r={3} fill="var(--ink)" />
      </g>
      <Label x={right} y={26} text={id} />
      {!bare && <Label x={right} y={44} text={pulled ? "in" : "out"} soft />}
    </g>
  );
}

interface SwitchProps extends SymbolProps {
  readonly first: string;
  readonly closed: (terminal: string) => boolean;
  readonly label: string;
  readonly soft: string;
}

function SwitchSymbol({ shape, first, closed, label, soft }: SwitchProps) {
  const common = shape.ports.find(({ terminal }) => terminal === first);
  const others = shape.ports.filter((port) => port !== common);
  const up = common?.side !== "south";
  const made = others.find(({ terminal }) => closed(terminal));
  const rest = (others.at(-1)?.x ?? 22) + 32;
  return (
    <g>
      <g transform={up ? undefined : `matrix(1 0 0 -1 0 ${shape.height})`}>
        <rect x={2} y={8} width={(others.at(-1)?.x ?? 22) + 22} height={38} rx={3} {...body} />
        <path d={`M22 0V16`} {...line} />
        <circle cx={22} cy={16} r={3} fill="var(--ink)" />
        {others.map(({ terminal, x }) => (
          <g key={terminal}>
            <path d={`M${x} 54V38`} {...line} />
            <circle cx={x} cy={38} r={3} fill="var(--ink)" />
          </g>
        ))}
        <path d={`M22 16L${made ? made.x : 40} ${made ? 38 : 32}`} {...line} />
      </g>
      <Label x={rest} y={24} text={label} />
      <Label x={rest} y={42} text={soft} soft />
    </g>
  );
}

function PackSymbol({ part, shape }: { part: Extract<Part, { kind: "resistor" }>; shape: SymbolShape }) {
  const chain = packChain(part);
  const middle = 44;
  return (
    <g>
      <rect
        x={2}
        y={10}
        width={shape.width - 4}
        height={68}
        rx={6}
        {...body}
        strokeWidth={1.4}
        strokeDasharray="7 4"
      />
      {shape.ports.map(({ terminal, x, side }) => (
        <path
          key={terminal}
          d={`M${x} ${middle}V${side === "north" ? 0 : shape.height}`}
          {...line}
          strokeWidth={1.8}
        />
      ))}
      {part.elements.map((element, index) => {
        const [a, b] = [packX(chain, element.from), packX(chain, element.to)].sort(
          (one, other) => one - other,
        );
        const left = a ?? 0;
        const right = b ?? 0;
        const neighbours = Math.abs(chain.indexOf(element.from) - chain.indexOf(element.to)) === 1;
        const y = neighbours ? middle : middle - 8 - 3 * index;
        const centre = (left + right) / 2;
        return (
          <g key={element.id}>
            <path d={`M${left} ${middle}V${y}H${right}V${middle}`} {...line} strokeWidth={1.8} />
            {"thermalLink" in element ? (
              <path
                d={`M${centre - 12} ${y}q12 -14 24 0`}
                fill="var(--card)"
                stroke="var(--ink)"
                strokeWidth={2.2}
              />
            ) : (
              <rect x={centre - 14} y={y - 7} width={28} height={14} {...body} />
            )}
            <text x={centre} y={y + 24} textAnchor="middle" fontSize={14.5} fill="var(--soft)">
              {"thermalLink" in element || part.assumed ? element.id : `${element.ohms} Ω`}
            </text>
          </g>
        );
      })}
      <Label x={10} y={28} text={part.id} />
    </g>
  );
}

import type { Circuit } from "../circuit/circuit";
import { plugsOf } from "../circuit/plugs";
import { ampacity } from "../units/ampacity";
import type { PartDescription } from "./partDescription";

type Lead = NonNullable<PartDescription["leads"]>[number];

/** The plug of a part, the first if there are several; null if it has none. */
export const plugOf = (circuit: Circuit, part: string): string | null => plugsOf(circuit, part)[0] ?? null;

/** One lead of the new plug and the old wire to join it to. */
export interface LeadJoint {
  readonly pin: string;
  readonly terminal: string;
  readonly lead: { readonly colour: string; readonly mm2: number };
  readonly wire: { readonly id: string; readonly colour: string; readonly mm2: number };
  /** Matched by colour, or by pin if the colours differ. */
  readonly by: "colour" | "pin";
  /** The largest current there in any setting, and the current the lead can carry. */
  readonly amps: number;
  readonly leadStandsAmps: number;
  readonly crimp: Crimp;
  readonly warnings: readonly LeadWarning[];
}

/** What to watch at a joint: colours that differ, a thinner lead, a pin that two old wires share. */
export type LeadWarning = "joined-by-pin" | "thinner" | "shared-pin";

/** Why a plug with leads cannot be spliced in. */
export type SpliceRefusal =
  | { readonly code: "no-such-plug"; readonly plug: string }
  | { readonly code: "no-lead"; readonly plug: string; readonly pin: string; readonly colour: string }
  | { readonly code: "no-wire" | "no-pin"; readonly pin: string; readonly colour: string }
  | {
      readonly code: "wrong-circuit";
      readonly colour: string;
      readonly pin: string;
      readonly terminal: string;
      readonly oldPin: string;
      readonly oldTerminal: string;
    }
  | {
      readonly code: "too-thin";
      readonly pin: string;
      readonly colour: string;
      readonly mm2: number;
      readonly standsAmps: number;
      readonly amps: number;
    };

/** Whether leads can be spliced in, and if not, why. */
export interface LeadMap {
  readonly joints: readonly LeadJoint[];
  /** The reason they cannot. */
  readonly refusals: readonly SpliceRefusal[];
}

/** Barrels of insulated butt joints by the copper they take, in mm² (common practice, no source). */
const barrels = [
  { name: "red", from: 0.5, to: 1.5 },
  { name: "blue", from: 1.5, to: 2.5 },
  { name: "yellow", from: 4, to: 6 },
] as const;

/** The joint for two wires: an insulated barrel by its colour, or a bare one under heat-shrink. */
export type Crimp = (typeof barrels)[number]["name"] | "bare";

/** The barrel that takes both wires, by their copper in mm². */
export function crimpFor(mm2a: number, mm2b: number): Crimp {
  const [thin, thick] = [Math.min(mm2a, mm2b), Math.max(mm2a, mm2b)];
  return barrels.find(({ from, to }) => thin >= from && thick <= to)?.name ?? "bare";
}

/**
 * The wire map of a plug with leads spliced in for an old plug: each lead with the wire of its pin's terminal. If the
 * old plug has the same colour on another terminal, a colour-to-colour splice would connect the wrong circuit, so it
 * is refused.
 * @param connector the old plug, whose pins the new one keeps
 * @param ampsOf the largest current of a wire in any setting
 */
export function leadMap(
  circuit: Circuit,
  connector: string,
  leads: readonly Lead[],
  ampsOf: (wire: string) => number,
): LeadMap {
  const plug = circuit.connectors.find(({ id }) => id === connector);
  if (!plug) return { joints: [], refusals: [{ code: "no-such-plug", plug: connector }] };
  const refusals: SpliceRefusal[] = [];
  const joints: LeadJoint[] = [];
  const wires = new Map(
    Object.entries(plug.pins).map(([pin, terminal]) => [
      pin,
      circuit.wires.filter(({ from, to }) => from === terminal || to === terminal),
    ]),
  );
  for (const [pin, own] of wires)
    if (own.length > 0 && !leads.some((lead) => lead.pin === pin))
      refusals.push({ code: "no-lead", plug: connector, pin, colour: own[0]?.colour ?? "" });
  for (const lead of leads) {
    const terminal = plug.pins[lead.pin];
    const [wire, second] = wires.get(lead.pin) ?? [];
    if (!terminal || !wire) {
      refusals.push({ code: terminal ? "no-wire" : "no-pin", pin: lead.pin, colour: lead.colour });
      continue;
    }
    const elsewhere = [...wires].find(
      ([pin, own]) => pin !== lead.pin && own.some(({ colour }) => colour === lead.colour),
    );
    if (elsewhere && wire.colour !== lead.colour) {
      refusals.push({
        code: "wrong-circuit",
        colour: lead.colour,
        pin: lead.pin,
        terminal,
        oldPin: elsewhere[0],
        oldTerminal: plug.pins[elsewhere[0]] ?? "",
      });
      continue;
    }
    joints.push(jointOf(lead, terminal, wire, second !== undefined, ampsOf(wire.id)));
  }
  return { joints, refusals: [...refusals, ...joints.flatMap(tooThin)] };
}

function jointOf(
  lead: Lead,
  terminal: string,
  wire: Circuit["wires"][number],
  shared: boolean,
  amps: number,
): LeadJoint {
  const by = lead.colour === wire.colour ? "colour" : "pin";
  return {
    pin: lead.pin,
    terminal,
    lead: { colour: lead.colour, mm2: lead.mm2 },
    wire: { id: wire.id, colour: wire.colour, mm2: wire.mm2 },
    by,
    amps,
    leadStandsAmps: ampacity(lead.mm2),
    crimp: crimpFor(lead.mm2, wire.mm2),
    warnings: [
      ...(by === "pin" ? (["joined-by-pin"] as const) : []),
      ...(lead.mm2 < wire.mm2 ? (["thinner"] as const) : []),
      ...(shared ? (["shared-pin"] as const) : []),
    ],
  };
}

const tooThin = ({ pin, lead, amps, leadStandsAmps }: LeadJoint): SpliceRefusal[] =>
  amps > leadStandsAmps
    ? [{ code: "too-thin", pin, colour: lead.colour, mm2: lead.mm2, standsAmps: leadStandsAmps, amps }]
    : [];

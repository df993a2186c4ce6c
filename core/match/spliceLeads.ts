import type { Circuit } from "../circuit/circuit";
import { plugsOf } from "../circuit/plugs";
import { ampacity } from "../units/ampacity";
import type { PartDescription } from "./partDescription";

type Lead = NonNullable<PartDescription["leads"]>[number];

/** The plug that goes onto a part, the first where there are several; null where it has none. */
export const plugOf = (circuit: Circuit, part: string): string | null => plugsOf(circuit, part)[0] ?? null;

/** One lead of the new plug and the old wire it is joined to. */
export interface LeadJoint {
  readonly pin: string;
  readonly terminal: string;
  readonly lead: { readonly colour: string; readonly mm2: number };
  readonly wire: { readonly id: string; readonly colour: string; readonly mm2: number };
  /** Colour to colour, or by the pin where the colours differ. */
  readonly by: "colour" | "pin";
  /** The most that flows there in any setting, and what the lead stands. */
  readonly amps: number;
  readonly leadStandsAmps: number;
  readonly crimp: string;
  readonly warnings: readonly string[];
}

/** Whether leads can be spliced in, and why not. */
export interface LeadMap {
  readonly joints: readonly LeadJoint[];
  /** What forbids it. */
  readonly refusals: readonly string[];
}

/** Barrels of insulated butt joints by the copper they take, mm² (common practice, no source). */
const barrels = [
  { name: "red", from: 0.5, to: 1.5 },
  { name: "blue", from: 1.5, to: 2.5 },
  { name: "yellow", from: 4, to: 6 },
] as const;

/** The joint for two wires: a barrel that takes both, else a bare barrel under heat-shrink. */
export function crimpFor(mm2a: number, mm2b: number): string {
  const [thin, thick] = [Math.min(mm2a, mm2b), Math.max(mm2a, mm2b)];
  const fits = barrels.find(({ from, to }) => thin >= from && thick <= to);
  return fits
    ? `${fits.name} butt crimp, sealed`
    : "bare barrel for both sections, crimped, under glued heat-shrink";
}

/**
 * The wire map of a plug with leads spliced in for an old plug: each lead to the wire that goes to its pin's terminal. A colour
 * that the old plug has too but on another terminal would lead a colour-to-colour splice to the wrong circuit, and is refused.
 * @param connector the old plug, whose pins the new one keeps
 * @param ampsOf the most a wire carries in any setting
 */
export function leadMap(
  circuit: Circuit,
  connector: string,
  leads: readonly Lead[],
  ampsOf: (wire: string) => number,
): LeadMap {
  const plug = circuit.connectors.find(({ id }) => id === connector);
  if (!plug) return { joints: [], refusals: [`${connector}: the circuit has no such plug`] };
  const refusals: string[] = [];
  const joints: LeadJoint[] = [];
  const wires = new Map(
    Object.entries(plug.pins).map(([pin, terminal]) => [
      pin,
      circuit.wires.filter(({ from, to }) => from === terminal || to === terminal),
    ]),
  );
  for (const [pin, own] of wires)
    if (own.length > 0 && !leads.some((lead) => lead.pin === pin))
      refusals.push(
        `pin ${pin} of ${connector} has a wire (${own[0]?.colour}) and the new plug no lead for it`,
      );
  for (const lead of leads) {
    const terminal = plug.pins[lead.pin];
    const [wire, second] = wires.get(lead.pin) ?? [];
    if (!terminal || !wire) {
      refusals.push(
        `pin ${lead.pin}, ${lead.colour}: the old plug ${terminal ? "has no wire there" : "has no such pin"}`,
      );
      continue;
    }
    const elsewhere = [...wires].find(
      ([pin, own]) => pin !== lead.pin && own.some(({ colour }) => colour === lead.colour),
    );
    if (elsewhere && wire.colour !== lead.colour) {
      refusals.push(
        `${lead.colour} of the new plug is pin ${lead.pin}, to ${terminal}; the old ${lead.colour} is pin ${elsewhere[0]}, to ${plug.pins[elsewhere[0]]}: colour to colour would meet the wrong circuit`,
      );
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
      ...(by === "pin"
        ? [`${lead.colour} is joined to ${wire.colour}: by the pin, not by the colour; mark it`]
        : []),
      ...(lead.mm2 < wire.mm2 ? [`thinner than the old ${wire.mm2} mm²`] : []),
      ...(shared ? ["two old wires share this pin: both into the joint"] : []),
    ],
  };
}

const tooThin = ({ pin, lead, amps, leadStandsAmps }: LeadJoint): string[] =>
  amps > leadStandsAmps
    ? [
        `pin ${pin}, ${lead.colour}: ${lead.mm2} mm² stands ${leadStandsAmps.toFixed(0)} A and ${amps.toFixed(1)} A flow there`,
      ]
    : [];

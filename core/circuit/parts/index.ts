import { z } from "zod";
import { type Battery, batterySchema, batteryTerminals } from "./battery";
import { type ClimatePanel, climatePanelSchema, climatePanelTerminals } from "./climatePanel";
import { type Fuse, fuseSchema, fuseTerminals } from "./fuse";
import { type Ground, groundSchema, groundTerminals } from "./ground";
import { type Ignition, ignitionSchema, ignitionTerminals } from "./ignition";
import { type InlineConnector, inlineSchema, inlineTerminals } from "./inline";
import { type ControlModule, moduleSchema, moduleTerminals } from "./module";
import { type Motor, motorSchema, motorTerminals } from "./motor";
import { type Relay, relaySchema, relayTerminals } from "./relay";
import { type ResistorPack, resistorSchema, resistorTerminals } from "./resistor";
import { type Selector, selectorSchema, selectorTerminals } from "./selector";
import { type Splice, spliceSchema, spliceTerminals } from "./splice";

export type Part =
  | Battery
  | Ground
  | Fuse
  | Ignition
  | Relay
  | Selector
  | ResistorPack
  | Motor
  | ControlModule
  | ClimatePanel
  | Splice
  | InlineConnector;
export type PartKind = Part["kind"];
export type PartOf<K extends PartKind> = Extract<Part, { kind: K }>;

/** Every kind of part in `airway-circuit`. To add a kind, add a file and a line in each table here. */
export const partSchema = z.discriminatedUnion("kind", [
  batterySchema,
  groundSchema,
  fuseSchema,
  ignitionSchema,
  relaySchema,
  selectorSchema,
  resistorSchema,
  motorSchema,
  moduleSchema,
  climatePanelSchema,
  spliceSchema,
  inlineSchema,
]);

const terminalsByKind: { [K in PartKind]: (part: PartOf<K>) => string[] } = {
  battery: batteryTerminals,
  ground: groundTerminals,
  fuse: fuseTerminals,
  ignition: ignitionTerminals,
  relay: relayTerminals,
  selector: selectorTerminals,
  resistor: resistorTerminals,
  motor: motorTerminals,
  module: moduleTerminals,
  head: climatePanelTerminals,
  splice: spliceTerminals,
  inline: inlineTerminals,
};

/** Names of a part's terminals, in the order its kind lists them. */
export function terminalsOf(part: Part): string[] {
  return (terminalsByKind[part.kind] as (part: Part) => string[])(part);
}

export type {
  Battery,
  ClimatePanel,
  ControlModule,
  Fuse,
  Ground,
  Ignition,
  InlineConnector,
  Motor,
  Relay,
  ResistorPack,
  Selector,
  Splice,
};

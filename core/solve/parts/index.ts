import type { PartKind } from "../../circuit/parts/index";
import type { AddPart } from "../netlist/netlistBuilder";
import { addBattery } from "./battery";
import { addClimatePanel } from "./climatePanel";
import { addFuse } from "./fuse";
import { addGround } from "./ground";
import { addIgnition } from "./ignition";
import { addInline } from "./inline";
import { addModule } from "./module";
import { addMotor } from "./motor";
import { addRelay } from "./relay";
import { addResistor } from "./resistor";
import { addSelector } from "./selector";
import { addSplice } from "./splice";

/** For every kind of part, the function that adds its branches. */
export const solvedParts: { readonly [K in PartKind]: AddPart<K> } = {
  battery: addBattery,
  ground: addGround,
  fuse: addFuse,
  ignition: addIgnition,
  relay: addRelay,
  selector: addSelector,
  resistor: addResistor,
  motor: addMotor,
  module: addModule,
  head: addClimatePanel,
  splice: addSplice,
  inline: addInline,
};

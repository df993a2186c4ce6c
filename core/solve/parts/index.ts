import { addBattery } from "./battery";
import { addFuse } from "./fuse";
import { addGround } from "./ground";
import { addIgnition } from "./ignition";
import { addInline } from "./inline";
import { addMotor } from "./motor";
import { addRelay } from "./relay";
import { addResistor } from "./resistor";
import { addSelector } from "./selector";
import { addSplice } from "./splice";

/** Part kinds the solver knows, each by the function that adds its branches. */
export const solvedParts = {
  battery: addBattery,
  ground: addGround,
  fuse: addFuse,
  ignition: addIgnition,
  relay: addRelay,
  selector: addSelector,
  resistor: addResistor,
  motor: addMotor,
  splice: addSplice,
  inline: addInline,
} as const;

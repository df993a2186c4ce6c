import type { Circuit } from "@core/circuit/circuit";
import type { ProofKind } from "@core/diagnose/proof/proofStep";
import { repairName } from "./partName";

/** What a proof shows of a part, given the part's name. */
const sentences: Readonly<Record<ProofKind, (name: string) => string>> = {
  "fed-and-dead": (name) => `Feed and ground reach the ${name}, and it still does not run right`,
  "lamp-lights": (name) =>
    `A lamp in place of the ${name} lights as it should, and the motor does not run right`,
  "no-better-on-leads": (name) => `Fed straight from the battery, the ${name} runs no better`,
  "starts-when-tapped": (name) => `It starts when the ${name} is tapped`,
  ripple: (name) => `The current of the ${name} does not ripple evenly`,
  stiff: (name) => `The ${name} does not turn freely by hand`,
  noise: (name) => `The ${name} was heard making the noise`,
  silenced: (name) => `The whistle stops with a finger over the vent hole of the ${name}`,
  debris: (name) => `Debris was seen in the ${name}`,
  "output-wrong": (name) =>
    `The ${name} has its feed, its ground and the right command, and its output is wrong`,
  "output-at-off": (name) => `The ${name} drives the motor although it should be off`,
  "stops-unplugged": (name) => `The blower stops once the plug of the ${name} is pulled`,
  "command-wrong": (name) =>
    `The ${name} has its feeds and its ground, and its command is wrong even with nothing connected to it`,
  ohms: (name) => `Measured by itself, the ${name} has the wrong resistance`,
  "in-not-out": (name) => `What goes into the ${name} does not come out of it`,
  "seen-burnt": (name) => `The ${name} was seen burnt or melted`,
  "seen-blown": (name) => `The ${name} was seen blown or burnt`,
  "swap-cures": (name) => `A known-good part in place of the ${name} cures it`,
  "makes-when-off": (name) => `The ${name} passes current although it should be off`,
  wiggle: (name) => `Wiggling the ${name} changes what the blower does`,
  "plug-bypassed": (name) =>
    `The wires bring the ${name} what they should, and the part behind it is good, yet it fails with the plug on`,
  "one-end-fed": (name) => `One end of the ${name} has what it should, and the other has not`,
  shorted: (name) => `The ${name} has a connection to ground that it should not have`,
  "stray-feed": (name) => `The ${name} has voltage where it should have none`,
  "ground-drop": (name) =>
    `There is voltage between the ${name} and the battery negative while current flows`,
  "battery-low": () => "The battery's voltage is low with the blower on",
  "air-blocked": () => "The motor has its voltage, and still too little air comes out",
};

/** What a proof shows of a part, as a sentence without its full stop. */
export const proofText = (circuit: Circuit, part: string, says: ProofKind): string =>
  sentences[says](repairName(circuit, [part]));

import type { Adaptation, AdaptationWork } from "@core/access/adaptation";
import type { Circuit } from "@core/circuit/circuit";
import { repairName } from "./partName";

const titles: Readonly<Record<AdaptationWork, (count: number) => string>> = {
  "splice-leads": (count) => `Splice the new plug in, ${count} ${count === 1 ? "lead" : "leads"}`,
  "lengthen-leads": (count) => `Lengthen its wires, ${count} ${count === 1 ? "joint" : "joints"}`,
  "mend-wire": () => "Cut the damage out and join the wire",
  "fit-lead": () => "Put the loose lead between the part and the car's plug",
  "carry-lead": () => "Move the loose lead over from the old part",
  "file-holes": () => "File the holes out",
  "file-corner": () => "File the corner off",
  "cut-key": () => "Cut the key off",
  "cut-nose": () => "Cut the nose off flush and seal it",
  "close-vent": () => "Close the vent, or run a tube to it",
  "carry-tube": () => "Move the vent tube over from the old motor",
  "carry-gasket": () => "Put the old gasket on the new part",
  "leave-screw-out": () => "Leave out the screw that has no hole, or drill for it",
  "press-wheel-over": () => "Pull the old wheel off and press it onto the new shaft",
  "carry-wheel-over": () => "Move the old wheel over with its clip or nut",
  "slide-wheel-over": () => "Slide the old wheel onto the new shaft",
  "carry-clip": () => "Move the clip over from the old part",
  "fit-ring": () => "Fit the new motor with its ring, screws and sealing strip",
};

/** An adaptation as something to do: `File the corner off`. */
export const adaptationTitle = ({ work, count }: Pick<Adaptation, "work" | "count">): string =>
  titles[work](count);

const things: Readonly<Record<AdaptationWork, string>> = {
  "splice-leads": "plug",
  "lengthen-leads": "wires",
  "mend-wire": "wire",
  "fit-lead": "loose lead",
  "carry-lead": "loose lead",
  "file-holes": "fixing holes",
  "file-corner": "corner",
  "cut-key": "key",
  "cut-nose": "drain nose",
  "close-vent": "vent",
  "carry-tube": "vent tube",
  "carry-gasket": "gasket",
  "leave-screw-out": "fixing screws",
  "press-wheel-over": "wheel",
  "carry-wheel-over": "wheel",
  "slide-wheel-over": "wheel",
  "carry-clip": "clip",
  "fit-ring": "fixing ring and sealing strip",
};

/** What an adaptation is done to, for the work list: `vent tube of blower motor M1`. */
export const adaptationThing = (
  circuit: Circuit,
  work: AdaptationWork,
  part: string,
  name = repairName(circuit, [part]),
): string => `${things[work]} of ${name}`;

const crimped =
  "Slide the heat-shrink on first. Join one lead at a time, colour to colour or pin to pin, crimp, tug and seal it";

/** How it is done well, by the trade's rules (common practice, no source). */
export const adaptationHow: Readonly<Record<AdaptationWork, readonly string[]>> = {
  "splice-leads": [crimped, "Stagger the joints so that the bundle stays thin"],
  "lengthen-leads": [crimped],
  "mend-wire": [
    "Slide the heat-shrink on first. Crimp, tug and seal it; where much is missing, put in a piece of the same thickness",
    "Tie it away from what rubbed or pinched it",
  ],
  "fit-lead": ["It clicks at both ends"],
  "carry-lead": ["It clicks at both ends"],
  "file-holes": ["File on the bench, never over the open housing. Both holes by the same amount"],
  "file-corner": ["File on the bench, never over the open housing. Try it in the opening as you go"],
  "cut-key": ["Mark how the old part sits before you cut"],
  "cut-nose": ["Cut away from your hand"],
  "close-vent": ["Only a vent that the old motor did not have. A vent with a tube stays open"],
  "carry-tube": ["The tube cools the motor. It must sit tight on its nipple and be clear of the wheel"],
  "carry-gasket": ["Peel it off in one piece; if it tears, use a strip of foam"],
  "leave-screw-out": ["The rest must still hold it without a gap"],
  "press-wheel-over": [
    "Measure how deep the wheel sits, and press it to the same depth",
    "Support the shaft at the other end so that the motor's bearing takes no force",
    "Spin it: it runs true and touches nothing",
  ],
  "carry-wheel-over": [
    "The nut may have a left-hand thread",
    "Keep its height. Spin it: it runs true and touches nothing",
  ],
  "slide-wheel-over": ["Flat on flat, down to the stop. Spin it: it runs true and touches nothing"],
  "carry-clip": [],
  "fit-ring": [
    "Lay the sealing strip in the seam before the motor",
    "Start all screws by hand, tighten in turn, and stop at seated plus an eighth to a quarter turn",
  ],
};

import type { DifferenceOf, Told } from "./toldDifference";

/** A difference of the plug, or of the wires to it. */
export function plugTold(
  finding: DifferenceOf<
    | "pins-by-splice"
    | "pins-by-lead"
    | "pins-do-not-fit"
    | "tab-by-splice"
    | "tab-by-lead"
    | "tab-turned"
    | "plug-elsewhere"
    | "tail-longer"
    | "tail-shorter"
    | "lead-missing"
    | "lead-not-needed"
  >,
): Told {
  switch (finding.code) {
    case "pins-by-splice":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins, with leads`,
        "it comes with its own plug, which has to be spliced in",
      ];
    case "pins-by-lead":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins, with a loose lead`,
        "the loose lead joins it to the car's plug",
      ];
    case "pins-do-not-fit":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins`,
        "the car's plug does not fit this part",
      ];
    case "tab-by-splice":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}, with leads`,
        "it comes with its own plug, which has to be spliced in",
      ];
    case "tab-by-lead":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}, with a loose lead`,
        "the loose lead joins it to the car's plug",
      ];
    case "tab-turned":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}`,
        "the plug would go on upside down, if at all, and connect to the wrong pins",
      ];
    case "plug-elsewhere":
      return [seat(finding.old), seat(finding.fresh), "the same plug in another place connects just as well"];
    case "tail-longer":
      return [
        `${finding.oldMm} mm of wire`,
        `${finding.freshMm} mm`,
        "tie the rest up, away from the wheel and anything sharp",
      ];
    case "tail-shorter":
      return [
        `${finding.oldMm} mm of wire`,
        `${finding.freshMm} mm`,
        "see that it reaches the car's plug without pulling",
      ];
    case "lead-missing":
      return ["with a loose lead", "without", "the old lead joins it to the car's plug"];
    case "lead-not-needed":
      return [
        "without",
        "with a loose lead",
        "the car's plug fits it directly, so the lead stays in the box",
      ];
  }
}

/** Where a plug sits. */
const seat = (place: string): string =>
  place === "tail" ? "plug on a tail of wires" : `plug at the ${place}`;

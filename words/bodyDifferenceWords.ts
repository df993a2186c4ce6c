import type { Mount } from "@core/match/partFeature";
import type { DifferenceOf, Told } from "./toldDifference";

const mountWords: Readonly<Record<Mount, string>> = {
  screws: "held by screws",
  "twist-lock": "held by a twist",
  moulded: "moulded in",
  ring: "with a fixing ring",
};

/** A difference of the housing and what is on it. */
export function bodyTold(
  finding: DifferenceOf<
    | "gasket-missing"
    | "gasket-added"
    | "more-screws"
    | "fewer-screws"
    | "vent-missing"
    | "vent-added"
    | "drain-missing"
    | "drain-added"
    | "ring-kit"
    | "other-mount"
    | "cut-out-added"
    | "cut-out-missing"
    | "key-gone"
    | "key-in-the-way"
  >,
): Told {
  switch (finding.code) {
    case "gasket-missing":
      return ["with a gasket", "without", "the old gasket or a strip of foam seals it"];
    case "gasket-added":
      return ["without", "with a gasket", "it seals better"];
    case "more-screws":
      return [`${finding.old} screws`, `${finding.fresh} screws`, "the housing has no hole for every screw"];
    case "fewer-screws":
      return [
        `${finding.old} screws`,
        `${finding.fresh} screws`,
        "one hole stays empty; the part still holds",
      ];
    case "vent-missing":
      return [
        "with a vent tube",
        "without",
        "the old tube is used again; without cooling air the motor burns out, so send it back if it has no hole for the tube",
      ];
    case "vent-added":
      return ["without", "with a vent", "an open vent whistles"];
    case "drain-missing":
      return ["with a drain", "without", "water stays in the housing and floods the motor"];
    case "drain-added":
      return ["without", "with a nose", "the housing has no hole for the nose"];
    case "ring-kit":
      return [
        mountWords[finding.old],
        mountWords[finding.fresh],
        "a known conversion: the old motor is cut out along its seam, and the ring comes with its own screws",
      ];
    case "other-mount":
      return [mountWords[finding.old], mountWords[finding.fresh], "the housing cannot hold it"];
    case "cut-out-added":
    case "cut-out-missing":
    case "key-gone":
    case "key-in-the-way":
      return locatingTold(finding);
  }
}

function locatingTold(
  finding: DifferenceOf<"cut-out-added" | "cut-out-missing" | "key-gone" | "key-in-the-way">,
): Told {
  const named = (what: string, side: string): string =>
    side === "none" ? `no ${what}` : `${what} at the ${side}`;
  switch (finding.code) {
    case "cut-out-added":
      return [
        named("cut-out", finding.old),
        named("cut-out", finding.fresh),
        "a missing corner is in nobody's way",
      ];
    case "cut-out-missing":
      return [
        named("cut-out", finding.old),
        named("cut-out", finding.fresh),
        "the housing needs room where the old part is cut out",
      ];
    case "key-gone":
      return [
        named("key", finding.old),
        named("key", finding.fresh),
        "nothing sets its position now; mark how the old one sits",
      ];
    case "key-in-the-way":
      return [
        named("key", finding.old),
        named("key", finding.fresh),
        "the housing has no slot for the key there; mark how the old part sits",
      ];
  }
}

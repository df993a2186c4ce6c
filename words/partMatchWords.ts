import type { PartFeature, PartMatch } from "@core/match/partMatch";
import { differenceWords } from "./differenceWords";

const featureNames: Readonly<Record<PartFeature, string>> = {
  plug: "plug and its tab",
  holes: "hole pattern",
  screws: "screws",
  notch: "cut-out corner",
  ventTube: "vent tube",
  drainNose: "drain nose",
  gasket: "gasket",
  climate: "manual or automatic climate",
  wheelFit: "whether the old wheel fits the new shaft",
};

/** A feature that neither part's description states. */
const featureText = (feature: PartFeature): string => featureNames[feature];

/** A comparison of two parts with its differences in words, each with whether a person overrode it. */
export const partMatchWords = ({ differences, untold, ...match }: PartMatch) => ({
  ...match,
  differences: differences.map((own) => ({ ...differenceWords(own), overridden: own.overridden })),
  untold: untold.map(featureText),
});

import { selectorTerminals } from "../../circuit/parts/selector";
import type { AddPart } from "../netlist/netlistBuilder";

/** Nominal contact resistance of the key switch and the selector, in ohms, if the file gives none. */
export const switchContactOhms = 0.005;

/** One contact per output, closed in the settings that list it. */
export const addSelector: AddPart<"selector"> = (builder, part) => {
  for (const output of selectorTerminals(part).slice(1)) {
    const closedIn = new Set(
      Object.entries(part.closes)
        .filter(([, outputs]) => outputs.includes(output))
        .map(([setting]) => setting),
    );
    builder.branch(
      { id: `${part.id}.${output}`, owner: part.id, assumed: part.assumed ?? false },
      [`${part.id}.${part.common}`, `${part.id}.${output}`],
      part.contactOhms ?? switchContactOhms,
      "contact",
      { by: "selector", part: part.id, closedIn },
    );
  }
};

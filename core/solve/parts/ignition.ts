import { ignitionTerminals, keyPositions } from "../../circuit/parts/ignition";
import type { AddPart } from "../netlist/netlistBuilder";
import { switchContactOhms } from "./selector";

/** One contact per output, closed in the key positions that list it. */
export const addIgnition: AddPart<"ignition"> = (builder, part) => {
  for (const output of ignitionTerminals(part).slice(1)) {
    const closedIn = new Set<string>(keyPositions.filter((key) => part.closes[key]?.includes(output)));
    builder.branch(
      { id: `${part.id}.${output}`, owner: part.id, assumed: part.assumed ?? false },
      [`${part.id}.30`, `${part.id}.${output}`],
      part.contactOhms ?? switchContactOhms,
      "contact",
      { by: "ignition", closedIn },
    );
  }
};

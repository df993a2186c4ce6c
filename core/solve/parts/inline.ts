import type { AddPart } from "../netlist/netlistBuilder";

const inlinePinOhms = 0.003;

/** One contact per pin between the connector's two sides. */
export const addInline: AddPart<"inline"> = (builder, part) => {
  for (const pin of part.pins) {
    builder.branch(
      { id: `${part.id}:${pin}`, owner: part.id, assumed: part.assumed ?? false },
      [`${part.id}.${pin}a`, `${part.id}.${pin}b`],
      part.pinOhms ?? inlinePinOhms,
      "contact",
    );
  }
};

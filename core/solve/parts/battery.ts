import type { AddPart } from "../netlist/netlistBuilder";

/** The battery's internal resistance; its voltage comes from the set-up. */
export const addBattery: AddPart<"battery"> = (builder, part) => {
  builder.branch(
    { id: part.id, owner: part.id, assumed: part.assumed ?? false },
    [`${part.id}.+`, `${part.id}.-`],
    part.ohms,
    "source",
  );
};

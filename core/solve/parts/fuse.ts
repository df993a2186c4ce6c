import type { AddPart } from "../netlist/netlistBuilder";

/** Cold resistance falls with the rating: 0.075 / amps (this format's nominal value). */
export const addFuse: AddPart<"fuse"> = (builder, part) => {
  builder.branch(
    { id: part.id, owner: part.id, assumed: part.assumed ?? false },
    [`${part.id}.in`, `${part.id}.out`],
    part.ohms ?? 0.075 / part.amps,
    "fuse",
  );
};

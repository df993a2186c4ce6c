import type { AddPart } from "../netlist/netlistBuilder";

/** A ground point's contact resistance to the battery's negative. */
export const addGround: AddPart<"ground"> = (builder, part, circuit) => {
  const battery = circuit.parts.find((other) => other.kind === "battery");
  builder.branch(
    { id: part.id, owner: part.id, assumed: part.assumed ?? false },
    [`${part.id}.31`, `${battery?.id}.-`],
    part.ohms,
    "contact",
  );
};

import { motorConstants } from "../../motor/motorConstants";
import type { AddPart } from "../netlist/netlistBuilder";

/** The winding's resistance; the solver adds the back-EMF from the speed. */
export const addMotor: AddPart<"motor"> = (builder, part) => {
  const branch = builder.branch(
    { id: part.id, owner: part.id, assumed: part.assumed ?? false },
    [`${part.id}.+`, `${part.id}.-`],
    motorConstants(part).ohms,
    "winding",
    { by: "motor", index: builder.motors.length },
  );
  builder.motors.push({ part, branch });
};

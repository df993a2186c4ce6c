import type { AddPart } from "../netlist/netlistBuilder";

const inputOhms = 47_000;

/**
 * A control module joins the leg it does not chop inside: `m+` to `30` (low side) or `m-` to `31` (high side). Its
 * input resistance leads to `31`; its output stage is a port the solver drives by duty.
 */
export const addModule: AddPart<"module"> = (builder, part) => {
  const at = (terminal: string): string => `${part.id}.${terminal}`;
  const item = { owner: part.id, assumed: part.assumed ?? false };
  const low = part.side === "low";
  builder.join(low ? at("m+") : at("m-"), low ? at("30") : at("31"));
  builder.branch({ ...item, id: at("input") }, [at("cmd"), at("31")], part.inputOhms ?? inputOhms, "element");
  const index = builder.modules.length;
  const stage = builder.branch(
    { ...item, id: at("stage") },
    low ? [at("m-"), at("31")] : [at("30"), at("m+")],
    part.onOhms,
    "contact",
    { by: "module", index },
  );
  builder.modules.push({
    part,
    feed: builder.node(at("30")),
    ground: builder.node(at("31")),
    command: builder.node(at("cmd")),
    stage,
    freewheel: low
      ? { a: builder.node(at("m-")), b: builder.node(at("30")) }
      : { a: builder.node(at("31")), b: builder.node(at("m+")) },
  });
  builder.devices.push({ kind: "module", index });
};

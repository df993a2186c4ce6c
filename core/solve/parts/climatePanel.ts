import type { AddPart } from "../netlist/netlistBuilder";

/** The panel's output: command volts behind `outOhms`, present while the panel is alive. */
export const addClimatePanel: AddPart<"head"> = (builder, part) => {
  const at = (terminal: string): string => `${part.id}.${terminal}`;
  const index = builder.heads.length;
  const source = builder.branch(
    { id: at("source"), owner: part.id, assumed: part.assumed ?? false },
    [at("cmd"), at("31")],
    part.outOhms,
    "element",
    { by: "head", index },
  );
  builder.heads.push({
    part,
    permanent: builder.node(at("30")),
    switched: builder.node(at("15")),
    ground: builder.node(at("31")),
    source,
  });
  builder.devices.push({ kind: "head", index });
};

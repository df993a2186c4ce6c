import type { AddPart } from "../netlist/netlistBuilder";

const thermalLinkOhms = 0.005;

/** The pack's elements and thermal links, each a branch `R1.e1`. */
export const addResistor: AddPart<"resistor"> = (builder, part) => {
  for (const element of part.elements) {
    const link = "thermalLink" in element;
    builder.branch(
      { id: `${part.id}.${element.id}`, owner: part.id, assumed: part.assumed ?? false },
      [`${part.id}.${element.from}`, `${part.id}.${element.to}`],
      element.ohms ?? thermalLinkOhms,
      link ? "contact" : "element",
    );
  }
};

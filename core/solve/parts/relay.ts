import type { AddPart } from "../netlist/netlistBuilder";

/** The coil from 86 to 85, the working contact to 87 and, if it is wired, the normally closed contact to 87a. */
export const addRelay: AddPart<"relay"> = (builder, part, circuit) => {
  const item = { owner: part.id, assumed: part.assumed ?? false };
  const at = (terminal: string): string => `${part.id}.${terminal}`;
  const relay = builder.relays.length;
  const coil = builder.branch({ ...item, id: at("coil") }, [at("86"), at("85")], part.coilOhms, "coil");
  builder.relays.push({ part, coil });
  builder.devices.push({ kind: "relay", index: relay });
  builder.branch({ ...item, id: at("87") }, [at("30"), at("87")], part.contactOhms, "contact", {
    by: "relay",
    relay,
    closedWhen: "pulled",
  });
  const resting =
    circuit.wires.some((wire) => wire.from === at("87a") || wire.to === at("87a")) ||
    circuit.connectors.some((plug) => Object.values(plug.pins).includes(at("87a")));
  if (!resting) return;
  builder.branch({ ...item, id: at("87a") }, [at("30"), at("87a")], part.contactOhms, "contact", {
    by: "relay",
    relay,
    closedWhen: "released",
  });
};

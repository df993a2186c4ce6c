import type { Chance } from "@core/chance/chance";
import type { Circuit, Wire } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import type { Part } from "@core/circuit/parts/index";
import { problemText } from "@core/problem/problem";

/** A change that another maker might have made; a circuit it does not fit is returned unchanged. */
type Change = (circuit: Circuit, chance: Chance) => Circuit;

/** Thinnest wire that carries the blower's current, in mm² (judgement). */
const heavyFrom = 1.5;

/** Cuts a wire and puts a part between its ends. */
function cutInto(circuit: Circuit, wire: Wire, part: Part, [near, far]: readonly [string, string]): Circuit {
  return {
    ...circuit,
    parts: [...circuit.parts, part],
    wires: [
      ...circuit.wires.map((own) =>
        own.id === wire.id ? { ...own, to: `${part.id}.${near}`, metres: own.metres / 2 } : own,
      ),
      { ...wire, id: `${wire.id}x${part.id}`, from: `${part.id}.${far}`, metres: wire.metres / 2 },
    ],
  };
}

const heavyWires = ({ wires }: Circuit): readonly Wire[] => wires.filter(({ mm2 }) => mm2 >= heavyFrom);

/** A further fuse behind one that carries the blower's current. */
const furtherFuse: Change = (circuit, chance) => {
  const outs = heavyWires(circuit).filter(({ from }) => /^F\d+\.out$/.test(from));
  if (outs.length === 0) return circuit;
  return cutInto(circuit, chance.pick(outs), { id: "F90", kind: "fuse", amps: 40 }, ["in", "out"]);
};

/** A joint in the middle of the harness. */
const furtherJoint: Change = (circuit, chance) => {
  const id = `X${90 + circuit.parts.filter(({ kind }) => kind === "inline").length}`;
  return cutInto(circuit, chance.pick(heavyWires(circuit)), { id, kind: "inline", pins: ["1"] }, [
    "1a",
    "1b",
  ]);
};

/** A wire in a plug of the blower circuit that belongs to something else: always fed, fed at key on, grounded or dead. */
const strayWire: Change = (circuit, chance) => {
  const ends = circuit.parts.flatMap(({ id, kind }) =>
    kind === "battery" ? [`${id}.+`] : kind === "ground" ? [`${id}.31`] : [],
  );
  const key = circuit.wires.find(({ from }) => /^S1\.15/.test(from))?.from;
  const plug = chance.pick(circuit.connectors);
  const at = circuit.parts.length;
  const joint = `J${90 + at}`;
  const pin = `n${at}`;
  const end = chance.pick([...ends, ...(key ? [key] : []), null]);
  const far = `J${300 + at}`;
  return {
    ...circuit,
    parts: [
      ...circuit.parts,
      { id: joint, kind: "splice" },
      ...(end === null ? [{ id: far, kind: "splice" as const }] : []),
    ],
    connectors: circuit.connectors.map((own) =>
      own.id === plug.id ? { ...own, pins: { ...own.pins, [pin]: `${joint}.s` } } : own,
    ),
    wires: [
      ...circuit.wires,
      {
        id: `W${300 + at}`,
        from: end ?? `${far}.s`,
        to: `${joint}.s`,
        colour: "WH",
        mm2: chance.pick([0.75, 2.5]),
        metres: 1,
      },
    ],
  };
};

/** Elements of another size, and the link between two others. */
const otherPack: Change = (circuit, chance) => ({
  ...circuit,
  parts: circuit.parts.map((part) => {
    if (part.kind !== "resistor") return part;
    const links = part.elements.filter((own) => "thermalLink" in own);
    const rest = part.elements.filter((own) => !("thermalLink" in own));
    const [link] = links;
    const chain = rest.every(({ from }, at) => at === 0 || from === rest[at - 1]?.to);
    const sized = rest.map((element) => ({
      ...element,
      ohms: (element.ohms ?? 0) * chance.logBetween(0.6, 1.7),
    }));
    if (!link || links.length > 1 || !chain || link.from !== rest.at(-1)?.to || chance.uniform() < 0.5)
      return { ...part, elements: [...sized, ...links] };
    // The link moves between two elements: the speeds beyond it do without.
    const place = Math.floor(chance.uniform() * rest.length);
    const moved = sized.map((element, at) => {
      const last = at === rest.length - 1 ? { to: link.to } : {};
      return at === place ? { ...element, from: "NL", ...last } : { ...element, ...last };
    });
    return {
      ...part,
      elements: [...moved, { ...link, from: rest[place]?.from ?? link.from, to: "NL" }],
    };
  }),
});

/** Without the relay that the key pulls in: what fed its coil feeds the blower, and the relay's own fuse goes too. */
const withoutRelay: Change = (circuit) => {
  const { parts, connectors, wires } = circuit;
  const relay = parts.find(({ kind }) => kind === "relay")?.id;
  const ofRelay = (point: string): boolean => point.split(".")[0] === relay;
  const coil = wires.find(({ to }) => to === `${relay}.86`);
  const feed = wires.find(({ to }) => to === `${relay}.30`);
  const out = wires.find(({ from }) => from === `${relay}.87`);
  const fromFuse = (wire: Wire | undefined): string | null =>
    /^(F\d+)\.out$/.exec(wire?.from ?? "")?.[1] ?? null;
  const kept = fromFuse(coil);
  const dropped = fromFuse(feed);
  if (!feed || !out || !kept || !dropped || wires.some(({ from }) => from === `${relay}.87a`)) return circuit;
  return {
    ...circuit,
    parts: parts
      .filter(({ id }) => id !== relay && id !== dropped)
      .map((part) =>
        part.id === kept && part.kind === "fuse" ? { ...part, amps: Math.max(part.amps, 30) } : part,
      ),
    connectors: connectors.filter(({ pins }) => !Object.values(pins).some(ofRelay)),
    wires: [
      ...wires.filter(({ from, to }) => !ofRelay(from) && !ofRelay(to) && to !== `${dropped}.in`),
      { ...out, from: `${kept}.out`, mm2: feed.mm2 },
    ],
  };
};

const changes: readonly (readonly [Change, number])[] = [
  [withoutRelay, 0.25],
  [otherPack, 0.8],
  [furtherFuse, 0.3],
  [furtherJoint, 0.5],
  [furtherJoint, 0.25],
  [strayWire, 0.5],
  [strayWire, 0.25],
];

/**
 * A circuit made by rule from a shipped one: further fuses and joints, another pack, no relay, wires in the plugs that
 * belong to nothing.
 * @throws Error if a change makes an invalid circuit
 */
export function variedCircuit(base: Circuit, chance: Chance): Circuit {
  const made = changes.reduce(
    (circuit, [change, p]) => (chance.uniform() < p ? change(circuit, chance) : circuit),
    base,
  );
  const parsed = parseCircuit(JSON.parse(JSON.stringify({ ...made, places: [] })));
  if (!parsed.ok) throw new Error(`${base.id}: ${parsed.problems.map(problemText).join("; ")}`);
  return parsed.value;
}

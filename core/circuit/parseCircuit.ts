import { type Parsed, type Problem, type ProblemCode, problemsOf, quoted, refused } from "../problem/problem";
import { type Circuit, circuitSchema } from "./circuit";
import { type Part, terminalsOf } from "./parts/index";

/** Collects the problems of one walk through a circuit. */
type Report = (code: ProblemCode, path: string, message: string) => void;

function checkUniqueIds(circuit: Circuit, report: Report): void {
  const seen = new Map<string, string>();
  const lists = [
    ["parts", circuit.parts],
    ["connectors", circuit.connectors],
    ["wires", circuit.wires],
  ] as const;
  for (const [list, items] of lists) {
    items.forEach((item, index) => {
      const earlier = seen.get(item.id);
      if (earlier)
        report(
          "duplicate",
          `${list}.${index}.id`,
          `duplicate id ${quoted(item.id)}, first used at ${earlier}`,
        );
      else seen.set(item.id, `${list}.${index}`);
    });
  }
  const places = new Set<string>();
  circuit.places.forEach((place, index) => {
    if (places.has(place.id)) report("duplicate", `places.${index}.id`, `duplicate id ${quoted(place.id)}`);
    places.add(place.id);
  });
}

function checkSettings(circuit: Circuit, report: Report): void {
  circuit.settings.forEach((setting, index) => {
    if (circuit.settings.indexOf(setting) !== index)
      report("duplicate", `settings.${index}`, `duplicate setting ${quoted(setting)}`);
  });
  circuit.parts.forEach((part, index) => {
    if (part.kind !== "selector" && part.kind !== "head") return;
    const own = part.kind === "selector" ? part.settings : undefined;
    const known = own ?? circuit.settings;
    const listed = part.kind === "selector" ? part.closes : part.commands;
    const key = part.kind === "selector" ? "closes" : "commands";
    for (const setting of Object.keys(listed)) {
      if (!known.includes(setting))
        report(
          "wrong-value",
          `parts.${index}.${key}`,
          `unknown setting ${quoted(setting)}, expected one of ${known.join(", ")}`,
        );
    }
  });
}

function checkPart(part: Part, path: string, report: Report): void {
  if (part.kind === "selector") {
    for (const [setting, outputs] of Object.entries(part.closes)) {
      if (outputs.includes(part.common))
        report(
          "contradiction",
          `${path}.closes.${setting}`,
          `${quoted(part.common)} is the common terminal itself`,
        );
    }
  }
  if (part.kind === "ignition" && Object.values(part.closes).some((list) => list?.includes("30")))
    report("contradiction", `${path}.closes`, `"30" is the feed terminal itself`);
  if (part.kind === "motor" && part.ratedAmps >= part.stallAmps)
    report(
      "out-of-range",
      `${path}.stallAmps`,
      `must be above ratedAmps ${part.ratedAmps}, got ${part.stallAmps}`,
    );
  if (part.kind === "relay" && part.dropOutVolts !== undefined && part.dropOutVolts >= part.pullInVolts)
    report(
      "out-of-range",
      `${path}.dropOutVolts`,
      `must be below pullInVolts ${part.pullInVolts}, got ${part.dropOutVolts}`,
    );
  if (part.kind === "module" && (part.sleepVolts ?? 5) >= (part.wakeVolts ?? 7))
    report(
      "out-of-range",
      `${path}.sleepVolts`,
      `must be below wakeVolts ${part.wakeVolts ?? 7}, got ${part.sleepVolts ?? 5}`,
    );
  if (part.kind === "module" && part.commandVolts[0] === part.commandVolts[1])
    report("contradiction", `${path}.commandVolts`, "the two volts must differ");
  if (part.kind === "resistor") checkElements(part, path, report);
}

function checkElements(part: Extract<Part, { kind: "resistor" }>, path: string, report: Report): void {
  const ids = new Set<string>();
  part.elements.forEach((element, index) => {
    const at = `${path}.elements.${index}`;
    if (ids.has(element.id)) report("duplicate", `${at}.id`, `duplicate element ${quoted(element.id)}`);
    ids.add(element.id);
    if (element.from === element.to) report("contradiction", at, `both ends are ${quoted(element.from)}`);
  });
}

function checkReferences(circuit: Circuit, report: Report): void {
  const terminals = new Map(circuit.parts.map((part) => [part.id, terminalsOf(part)]));
  const describe = (reference: string): string | null => {
    const [id = "", terminal, extra] = reference.split(".");
    const known = terminals.get(id);
    if (terminal === undefined || extra !== undefined)
      return `expected PART.terminal, got ${quoted(reference)}`;
    if (!known) return `no part ${quoted(id)} for ${quoted(reference)}`;
    if (!known.includes(terminal))
      return `unknown terminal ${quoted(reference)}, ${id} has ${known.join(", ")}`;
    return null;
  };
  const check = (path: string, reference: string): void => {
    const wrong = describe(reference);
    if (wrong) report("no-such-thing", path, wrong);
  };
  circuit.wires.forEach((wire, index) => {
    check(`wires.${index}.from`, wire.from);
    check(`wires.${index}.to`, wire.to);
    if (wire.from === wire.to)
      report("contradiction", `wires.${index}.to`, `both ends are ${quoted(wire.from)}`);
  });
  const plugged = new Map<string, string>();
  circuit.connectors.forEach((connector, index) => {
    for (const [pin, terminal] of Object.entries(connector.pins)) {
      const path = `connectors.${index}.pins.${pin}`;
      check(path, terminal);
      const earlier = plugged.get(terminal);
      if (earlier) report("duplicate", path, `${quoted(terminal)} is already plugged at ${earlier}`);
      plugged.set(terminal, path);
    }
  });
  checkPlaces(circuit, report);
}

function checkPlaces(circuit: Circuit, report: Report): void {
  const known = new Set([...circuit.parts, ...circuit.connectors].map((item) => item.id));
  const placed = new Map<string, string>();
  circuit.places.forEach((place, index) => {
    place.parts.forEach((id, entry) => {
      const path = `places.${index}.parts.${entry}`;
      if (!known.has(id)) report("no-such-thing", path, `no part or connector ${quoted(id)}`);
      const earlier = placed.get(id);
      if (earlier) report("duplicate", path, `${quoted(id)} is already in ${earlier}`);
      placed.set(id, `places.${index}`);
    });
  });
}

function checkSources(circuit: Circuit, report: Report): void {
  const batteries = circuit.parts.filter((part) => part.kind === "battery");
  if (batteries.length !== 1)
    report("wrong-value", "parts", `expected exactly one battery, got ${batteries.length}`);
}

/**
 * Reads an `airway-circuit` (version 1): the schema first, then that every id is unique and every
 * reference leads to a real terminal.
 * @returns the circuit, or every problem found with the path it sits at
 */
export function parseCircuit(input: unknown): Parsed<Circuit> {
  const shaped = circuitSchema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const problems: Problem[] = [];
  const report: Report = (code, path, message) => void problems.push({ code, path, message });
  const circuit = shaped.data;
  checkUniqueIds(circuit, report);
  checkSettings(circuit, report);
  circuit.parts.forEach((part, index) => void checkPart(part, `parts.${index}`, report));
  checkReferences(circuit, report);
  checkSources(circuit, report);
  return problems.length > 0 ? refused(problems) : { ok: true, value: circuit };
}

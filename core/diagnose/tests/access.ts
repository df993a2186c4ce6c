import { observationOf } from "../../predict/observations/index";
import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";

const eachUnplugged = 0.5;

/**
 * A fixed charge for attention on every test that is ranked, in minutes. Without it, many tests with little
 * information at an open location come before the decisive one, and the whole takes longer (measured on the fleet).
 */
export const attentionMinutes = 8;

/** The location that must be accessible to reach a point, part or connector, if any. */
export function placeOf(compiled: CompiledCircuit, item: string): string | null {
  const { circuit, points, battery } = compiled.netlist;
  // A clip on either battery post stands for any good feed or bare metal nearby.
  if (item === `${battery.id}.+` || item === `${battery.id}.-`) return null;
  const find = (id: string): string | null =>
    circuit.places.find(({ parts }) => parts.includes(id))?.id ?? null;
  const owner = points.ownerOf.get(item) ?? item;
  const wire = circuit.wires.find(({ id }) => id === owner);
  if (wire) return placeOf(compiled, item.endsWith("/to") ? wire.to : wire.from);
  const direct = find(owner);
  if (direct) return direct;
  const connector = circuit.connectors.find(({ id }) => id === owner);
  if (connector) {
    const terminal = connector.pins[item.slice(owner.length + 1)] ?? Object.values(connector.pins)[0];
    return terminal ? find(terminal.slice(0, terminal.indexOf("."))) : null;
  }
  const plug = points.pinOnTerminal.get(item);
  return plug ? find(plug.slice(0, plug.indexOf(":"))) : null;
}

/** The locations a test needs open. */
export function placesNeeded(compiled: CompiledCircuit, test: Test): string[] {
  const reaches = observationOf(test.test).reaches(test, compiled);
  const touched = [...reaches, ...(test.unplugged ?? []), ...(test.bridged ?? []).flat()];
  if (test.lampFor) touched.push(test.lampFor);
  return [...new Set(touched.flatMap((item) => placeOf(compiled, item) ?? []))];
}

/** Locations the readings so far have opened; the complaint opened nothing. */
export function openPlaces(compiled: CompiledCircuit, readings: readonly Reading[]): Set<string> {
  return new Set(
    readings.filter(({ heard }) => !heard).flatMap((reading) => placesNeeded(compiled, reading)),
  );
}

/** What a test costs regardless of what is open. */
export interface TestCost {
  /** The test itself, and what has to be unplugged or bridged. */
  readonly minutes: number;
  readonly places: readonly { readonly id: string; readonly minutes: number }[];
}

/** Minutes a test takes on the spot, with unplugging and bridging, and the locations it needs open. */
export function testCost(compiled: CompiledCircuit, test: Test): TestCost {
  const { places } = compiled.netlist.circuit;
  const hands = (test.unplugged?.length ?? 0) + (test.bridged?.length ?? 0);
  return {
    minutes: observationOf(test.test).minutes + eachUnplugged * hands,
    places: placesNeeded(compiled, test).map((id) => ({
      id,
      minutes: places.find((place) => place.id === id)?.minutes ?? 0,
    })),
  };
}

/** Minutes a test costs with some locations already open. */
export function minutesNow({ minutes, places }: TestCost, open: ReadonlySet<string>): number {
  let sum = minutes;
  for (const place of places) if (!open.has(place.id)) sum += place.minutes;
  return sum;
}

/** Minutes a test costs now: the test, what has to be unplugged or bridged, and locations not yet open. */
export function testMinutes(compiled: CompiledCircuit, test: Test, open: ReadonlySet<string>): number {
  return minutesNow(testCost(compiled, test), open);
}

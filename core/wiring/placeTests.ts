import type { Tool } from "../predict/observations/tool";
import { type Place, type PlugPlace, partPlaces, plugPlaces } from "./place";
import type { PlaceTest } from "./placeTest";
import type { BelievedCandidate } from "./wiringBelief";

/** Tools a test by place needs. */
const toolsOf: Readonly<Partial<Record<PlaceTest["test"], readonly Tool[]>>> = {
  light: ["test-light"],
  volts: ["meter"],
  ohms: ["meter"],
  amps: ["clamp"],
  lampload: ["load-lamp"],
  swap: ["spare-relay"],
  ripple: ["clamp", "scope"],
};

const needsLeads = (test: PlaceTest): boolean =>
  test.test === "airflow" && "leads" in test && test.leads === true;

/** Whether a test can be taken with the tools at hand. */
export const isWithin = (test: PlaceTest, tools: readonly Tool[]): boolean =>
  (toolsOf[test.test] ?? []).every((tool) => tools.includes(tool)) &&
  (!needsLeads(test) || tools.includes("jump-leads"));

/** Where a test by place is taken; nowhere for one that is taken from the seat. */
export function placesOfTest(test: PlaceTest): Place[] {
  const named = [
    ...("at" in test && test.at && test.test !== "airflow" ? [test.at] : []),
    ...("around" in test ? [test.around] : []),
    ...("red" in test && test.red ? [test.red] : []),
    ...("black" in test && test.black ? [test.black] : []),
    ...("lampFor" in test ? [test.lampFor] : []),
    ...(needsLeads(test) ? ["motor-plug"] : []),
    ...("unplugged" in test && test.unplugged ? [test.unplugged] : []),
  ].map((own) => own.split(":")[0]);
  return [...plugPlaces, ...partPlaces].filter((place) => named.includes(place));
}

/**
 * Every test by place that is worth weighing on vehicles wired in one of some ways.
 * @param common the pin of the switch's plug that is known to be its common; null while none is
 */
export function placeTests(
  candidates: readonly BelievedCandidate[],
  labels: ReadonlyMap<string, readonly string[]>,
  common: string | null,
): PlaceTest[] {
  const plugs = new Set(candidates.flatMap(({ candidate }) => [...candidate.plugs.keys()]));
  const parts = new Set(candidates.flatMap(({ candidate }) => [...candidate.parts.keys()]));
  const settings = candidates[0]?.candidate.circuit.settings ?? ["0"];
  const top = settings.at(-1) ?? "0";
  const middle = settings[Math.ceil((settings.length - 1) / 2)] ?? top;
  const live = [...new Set(["1", middle, top])].map((setting) => ({ key: "run" as const, setting }));
  const off = { key: "run" as const, setting: "0" };
  const strongest = { key: "run" as const, setting: top };
  const has = (plug: PlugPlace): boolean => plugs.has(plug);
  const lights = (at: PlugPlace, setups: readonly { key: "run"; setting: string }[]): PlaceTest[] =>
    has(at)
      ? setups.flatMap((setup) =>
          (["ground", "feed"] as const).map((clip) => ({ test: "light" as const, at, clip, ...setup })),
        )
      : [];
  const volts = (at: PlugPlace, setups: readonly { key: "run"; setting: string }[]): PlaceTest[] =>
    has(at)
      ? setups.map((setup) => ({ test: "volts" as const, at, black: "ground" as const, ...setup }))
      : [];
  const [one, other] = labels.get("motor-plug") ?? [];
  const [from] = labels.get("pack-plug") ?? ["a"];
  return [
    ...settings.slice(1).map((setting): PlaceTest => ({ test: "airflow", key: "run", setting })),
    { test: "airflow", ...off },
    ...lights("motor-plug", [off, ...live]),
    ...lights("pack-plug", live),
    ...lights("switch-plug", live),
    ...lights("module-plug", [off, ...live]),
    ...lights("panel-plug", [strongest]),
    ...volts("motor-plug", live),
    ...volts("module-plug", [off, ...live]),
    ...volts("panel-plug", [strongest]),
    ...(one && other
      ? live.map(
          (setup): PlaceTest => ({
            test: "volts",
            red: `motor-plug:${one}`,
            black: `motor-plug:${other}`,
            ...setup,
          }),
        )
      : []),
    ...(has("pack-plug") ? [{ test: "ohms" as const, at: "pack-plug" as const, from: from ?? "a" }] : []),
    ...(common
      ? live.map(
          ({ setting }): PlaceTest => ({
            test: "ohms",
            at: "switch-plug",
            from: common,
            key: "off",
            setting,
          }),
        )
      : []),
    { test: "volts", red: "feed", black: "ground", ...strongest },
    { test: "light", at: "fuses", clip: "ground", ...strongest },
    { test: "airflow", leads: true },
    ...(["module-plug", "panel-plug", "switch-plug"] as const)
      .filter(has)
      .map((unplugged): PlaceTest => ({ test: "airflow", unplugged, ...off })),
    ...live.map((setup): PlaceTest => ({ test: "lampload", lampFor: "motor-plug", ...setup })),
    { test: "amps", around: `motor-plug:${one ?? "a"}`, ...strongest },
    ...[...plugs].map((at): PlaceTest => ({ test: "wires", at })),
    ...[...plugs].map((at): PlaceTest => ({ test: "look", at })),
    ...(["motor", "pack", "module"] as const)
      .filter((at) => parts.has(at))
      .map((at): PlaceTest => ({ test: "look", at })),
    ...[...plugs].map((at): PlaceTest => ({ test: "tap", at, ...strongest })),
    { test: "spin", at: "motor" },
    { test: "listen", ...strongest },
    { test: "listen", ventCovered: true, ...strongest },
    { test: "tap", at: "motor", ...strongest },
    { test: "ripple", at: "motor", ...strongest },
    ...(parts.has("relay") ? [{ test: "swap" as const, at: "relay" as const, ...strongest }] : []),
  ];
}

// npm run bench: what an operating point, a compile and a reading cost on this machine.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { diagnose } from "@core/diagnose/diagnose";
import { CompiledCircuit, defaultDraws } from "@core/predict/compiledCircuit";
import type { Reading } from "@core/predict/reading";
import { buildNetlist, type Netlist } from "@core/solve/netlist";
import { PointSolver } from "@core/solve/pointSolver";
import { setupState } from "@core/solve/setup";
import { nominalValues } from "@core/solve/values";

const folder = join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo", "circuits");

function netlists(): Netlist[] {
  return readdirSync(folder).map((file) => {
    const circuit = parseCircuit(JSON.parse(readFileSync(join(folder, file), "utf8")));
    const netlist = circuit.ok ? buildNetlist(circuit.value, { lumpWires: true }) : circuit;
    if (!netlist.ok) throw new Error(`${file} cannot be solved`);
    return netlist.value;
  });
}

const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;

function spread(samples: readonly number[], unit: string): string {
  const sorted = [...samples].sort((a, b) => a - b);
  const figure = (value: number): string => value.toFixed(value < 10 ? 2 : 1);
  return `median ${figure(at(sorted, 0.5))} ${unit}, 95th percentile ${figure(at(sorted, 0.95))} ${unit}, worst ${figure(at(sorted, 1))} ${unit}`;
}

function pointMicroseconds(netlist: Netlist): number[] {
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const states = netlist.circuit.settings.map((setting) => setupState(netlist, { key: "run", setting }));
  const batch = 200;
  return Array.from({ length: 100 }, (_, round) => {
    const state = states[round % states.length];
    if (!state) return Number.NaN;
    const began = performance.now();
    for (let i = 0; i < batch; i++) solver.solve(values, state, []);
    return ((performance.now() - began) * 1000) / batch;
  });
}

function compileMilliseconds(netlist: Netlist): number[] {
  return Array.from({ length: 5 }, () => {
    const began = performance.now();
    new CompiledCircuit(netlist).prepare();
    return performance.now() - began;
  });
}

/** A job played from its complaint: each time the first look offered is answered and weighed anew. */
function readingMilliseconds(netlist: Netlist): number[] {
  const compiled = new CompiledCircuit(netlist);
  compiled.prepare();
  const samples: number[] = [];
  const play = (): void => {
    const readings: Reading[] = netlist.circuit.settings.slice(1).map((setting, i, all) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      seen: i === all.length - 1 ? "normal" : "none",
    }));
    for (let look = 0; look < 6; look++) {
      const began = performance.now();
      const result = diagnose(compiled, readings);
      samples.push(performance.now() - began);
      const next = result.ok ? result.value.next[0] : undefined;
      if (!next) break;
      readings.push(plainAnswer(next.test));
    }
  };
  for (let round = 0; round < 4; round++) play();
  samples.length = 0;
  for (let round = 0; round < 15; round++) play();
  return samples;
}

function plainAnswer(look: { readonly test: Reading["test"] }): Reading {
  const results: Partial<Record<Reading["test"], string>> = {
    airflow: "normal",
    light: "bright",
    look: "clean",
    spin: "free",
    listen: "quiet",
    smell: "none",
    history: "no",
    tap: "nothing",
    lampload: "bright",
    swap: "same",
    ripple: "even",
  };
  if (look.test === "volts") return { ...look, volts: 12 } as Reading;
  if (look.test === "amps") return { ...look, amps: 12 } as Reading;
  if (look.test === "ohms") return { ...look, ohms: null } as Reading;
  return { ...look, seen: results[look.test] } as Reading;
}

process.stdout.write(`Node ${process.version}, ${defaultDraws} drawn vehicles\n`);
for (const netlist of netlists()) {
  const { id } = netlist.circuit;
  const { variants, rows } = new CompiledCircuit(netlist);
  process.stdout.write(
    `\n${id}: ${netlist.nodeNames.length} nodes, ${variants.length} faults by size, ${rows.length} rows\n`,
  );
  process.stdout.write(`  operating point     ${spread(pointMicroseconds(netlist), "µs")}\n`);
  process.stdout.write(`  compile, all set-ups ${spread(compileMilliseconds(netlist), "ms")}\n`);
  process.stdout.write(`  reading to next look ${spread(readingMilliseconds(netlist), "ms")}\n`);
}
process.stdout.write(`\npeak memory ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB\n`);

// Where a probe can go (common practice, no source): behind a mated plug, on a fuse's top, on a stud, in a relay's
// socket with the relay out; never at a joint inside the loom.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { parseCircuit } from "../circuit/parseCircuit";
import { buildNetlist } from "../solve/buildNetlist";
import { isReachable, touched } from "./reach";

const parsed = parseCircuit(
  JSON.parse(readFileSync(join(process.cwd(), "demo/circuits/whimbrel-four-speed.json"), "utf8")),
);
if (!parsed.ok) throw new Error("the shipped circuit does not parse");
const built = buildNetlist(parsed.value);
if (!built.ok) throw new Error("the shipped circuit does not build");
const netlist = built.value;
const { circuit, points } = netlist;
const [terminal = "", pin = ""] = [...points.pinOnTerminal].find(([own]) => own.startsWith("M1.")) ?? [];
const plug = pin.slice(0, pin.indexOf(":"));
const splice = circuit.parts.find(({ kind }) => kind === "splice")?.id ?? "";
const fuse = circuit.parts.find(({ kind }) => kind === "fuse")?.id ?? "";

describe("where a probe goes", () => {
  test("a part's own terminal is reached with its plug off; with it on, the probe is behind the plug", () => {
    expect(touched(netlist, terminal)).toBe(pin);
    expect(touched(netlist, terminal, [plug])).toBe(terminal);
    expect(touched(netlist, pin)).toBe(pin);
  });

  test("a fuse has its two points, a ground its stud, the battery its posts", () => {
    for (const point of [`${fuse}.in`, `${fuse}.out`, `${netlist.battery.id}.+`])
      expect(touched(netlist, point)).toBe(point);
    for (const { id, kind } of circuit.parts)
      if (kind === "ground") expect(touched(netlist, `${id}.31`)).toBe(`${id}.31`);
  });

  test("a relay's socket needs the relay out; otherwise the hand ends at the other end of a wire", () => {
    expect(touched(netlist, "K3.87", ["K3"])).toBe("K3.87");
    const instead = touched(netlist, "K3.87");
    expect(instead).not.toMatch(/^K3/);
    const wire = circuit.wires.find(({ from, to }) => from === "K3.87" || to === "K3.87");
    const far = wire?.from === "K3.87" ? wire.to : wire?.from;
    expect(instead).toBe(points.pinOnTerminal.get(far ?? "") ?? far);
  });

  test("a joint in the loom and the copper of a wire are never touched", () => {
    expect(isReachable(netlist, `${splice}.s`, new Set())).toBe(false);
    expect(touched(netlist, `${splice}.s`)).not.toContain(splice);
    const { id = "", from = "" } = circuit.wires.find((wire) => points.pinOnTerminal.has(wire.from)) ?? {};
    expect(touched(netlist, `${id}/from`)).toBe(points.pinOnTerminal.get(from));
  });

  test("whatever it is sent to, a hand ends at a point it can touch", () => {
    for (const name of points.names)
      expect(isReachable(netlist, touched(netlist, name), new Set())).toBe(true);
  });
});

import { describe, expect, test } from "@jest/globals";
import { faultFromId } from "../fault/fault";
import { readRipple } from "../ripple/readRipple";
import { operatingPoint } from "../solve/operatingPoint";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import { PracticeInstrument } from "./practiceInstrument";
import { blockBytes } from "./scpi";

const netlist = shippedNetlist("whimbrel-four-speed");

function bench(fault: string | null) {
  const parsed = fault === null ? null : faultFromId(netlist, fault);
  const found = parsed?.ok ? parsed.value : null;
  const instrument = new PracticeInstrument({
    netlist,
    changes: found?.changes ?? [],
    modes: found?.names.map(({ mode }) => mode) ?? [],
  });
  const ask = (line: string): string => {
    const answer = instrument.device.answer(line);
    return answer === null ? "" : String.fromCharCode(...answer).trim();
  };
  return { instrument, ask };
}

describe("a practice instrument", () => {
  test("reads the circuit's operating point within a meter's and a clamp's error", () => {
    const { ask } = bench(null);
    for (const setting of ["1", "4"]) {
      const { volts, amps } = operatingPoint(netlist, { key: "run", setting });
      ask(`PRAC:SETT "${setting}";:PRAC:LEAD "M1.+","M1.-";:PRAC:CLAM "M1"`);
      const across = (volts["M1.+"] ?? 0) - (volts["M1.-"] ?? 0);
      expect(Math.abs(Number(ask("MEAS:VOLT:DC?")) - across)).toBeLessThan(0.15);
      expect(Math.abs(Number(ask("MEAS:CURR:DC?")) - (amps.M1 ?? 0))).toBeLessThan(0.6);
    }
    expect(ask("MEAS:VOLT:DC?")).toMatch(/^[+-]\d\.\d{6}E[+-]\d\d$/);
  });

  test("a fault shows in its readings, but its name in none of its answers", () => {
    const { ask } = bench("M1:tight@1.6");
    const healthy = operatingPoint(netlist, { key: "run", setting: "4" }).amps.M1 ?? 0;
    expect(Number(ask("MEAS:CURR:DC?"))).toBeGreaterThan(healthy * 1.2);
    expect(ask("*IDN?;SYST:ERR?")).not.toMatch(/tight/);
  });

  test("key, engine and points are checked", () => {
    const { ask } = bench(null);
    ask("PRAC:KEY OFF");
    expect(Math.abs(Number(ask("MEAS:CURR:DC?")))).toBeLessThan(0.3);
    for (const line of [
      "PRAC:KEY SIDEWAYS",
      'PRAC:SETT "99"',
      'PRAC:LEAD "Q1.+","G1.-"',
      'PRAC:CLAM "Q1"',
      "PRAC:LEAD",
      "MEAS:ARR:CURR? 1e9,20000",
    ]) {
      ask(line);
      expect(ask("SYST:ERR?")).toMatch(/^-(109|222|224),/);
    }
    expect(ask("*RST;PRAC:ENG ON;SYST:ERR?")).toBe('0,"No error"');
  });

  test("its scope's recording is a block of floats whose ripple matches the motor", () => {
    const shape = (fault: string | null) => {
      const { instrument } = bench(fault);
      const answer = instrument.device.answer("MEAS:ARR:CURR? 40000,20000");
      const data = blockBytes(answer as Uint8Array)?.data;
      expect(data).toHaveLength(160_000);
      const view = new DataView((data as Uint8Array).slice().buffer);
      const amps = Float32Array.from({ length: 40_000 }, (_, i) => view.getFloat32(4 * i, false));
      return readRipple({ amps, rateHz: 20_000 }, { bars: 12, aboutRpm: 2800 });
    };
    expect(shape(null).verdict).toBe("even");
    expect(shape("M1:worn-brushes@0.4").verdict).toBe("missing");
  });

  test("works with every shipped circuit", () => {
    for (const id of shippedIds) {
      const own = shippedNetlist(id);
      const instrument = new PracticeInstrument({ netlist: own, changes: [], modes: [] });
      const { amps } = instrument.trace(own.modules.length > 0 ? 60_000 : 10_000, 0.1);
      expect(amps.every(Number.isFinite)).toBe(true);
      expect(Number.isFinite(instrument.volts())).toBe(true);
    }
  });
});

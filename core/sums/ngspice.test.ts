// Sums without a published table, against ngspice 45 (eecircuit-engine, WebAssembly): the motor there is a behavioural
// source whose speed is a node on which the torques balance, and its pack a plain resistor.
import { beforeAll, describe, expect, jest, test } from "@jest/globals";
import { Simulation } from "eecircuit-engine";
import { motorConstants, steadySpeed } from "../motor/motorConstants";
import { dividedVolts } from "./loadedDivider";
import { packFor } from "./packForSpeeds";
import { wireOhms } from "./wireDrop";

const simulation = new Simulation();

beforeAll(async () => {
  jest.spyOn(console, "error").mockImplementation(() => undefined);
  jest.spyOn(console, "log").mockImplementation(() => undefined);
  await simulation.start();
});

/** Volts of a node of a circuit at rest. */
async function nodeVolts(lines: readonly string[], node: number): Promise<number> {
  simulation.setNetList(
    ["* a bench sum", ...lines, ".options reltol=1e-7 abstol=1e-12 vntol=1e-9 itl1=500", ".op", ".end"].join(
      "\n",
    ),
  );
  const result = await simulation.runSim();
  const found = result.data.find(({ name }) => name.toLowerCase() === `v(${node})`)?.values[0];
  if (typeof found !== "number") throw new Error(simulation.getError().join("\n"));
  return found;
}

describe("elements of a pack", () => {
  const plate = { ratedVolts: 13.5, ratedAmps: 18, stallAmps: 75, ratedRpm: 3200 };
  const { ohms, k, friction, fan } = motorConstants({ kind: "motor", id: "M", ...plate });
  test.each([0.3, 0.5, 0.75, 0.9])(
    "the ohms computed for a share of %p give that share in ngspice",
    async (share) => {
      const supplyVolts = 13;
      const [speed] = packFor({ ...plate, supplyVolts }, [share]);
      if (!speed) throw new Error("no speed");
      const turning = await nodeVolts(
        [
          `V1 1 0 ${supplyVolts}`,
          `R1 1 2 ${speed.totalOhms}`,
          `R2 2 3 ${ohms}`,
          "V2 3 4 0",
          `B1 4 0 V=${k}*v(5)`,
          `B2 0 5 I=${k}*i(V2)-${friction}-${fan}*v(5)*abs(v(5))`,
          "R3 5 0 1e9",
        ],
        5,
      );
      const top = steadySpeed(motorConstants({ kind: "motor", id: "M", ...plate }), supplyVolts);
      expect(turning / top).toBeCloseTo(share, 4);
    },
  );
});

test("a divider with a meter on it", async () => {
  const volts = await nodeVolts(["V1 1 0 12.6", "R1 1 2 22k", "R2 2 0 10meg", "R3 2 0 10meg"], 2);
  expect(dividedVolts(12.6, 22_000, 1e7, 1e7)).toBeCloseTo(volts, 6);
});

test("a wire that feeds a load", async () => {
  const ohms = wireOhms(6, 2.5, 20);
  const volts = await nodeVolts(["V1 1 0 13.5", `R1 1 2 ${ohms}`, "I1 2 0 18"], 2);
  expect(18 * ohms).toBeCloseTo(13.5 - volts, 6);
});

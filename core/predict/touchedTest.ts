import type { Netlist } from "../solve/netlist/netlist";
import { observationOf } from "./observations/index";
import { isReachable, touched } from "./reach";
import type { Test } from "./reading";

/** The points a test names, by key. */
function pointsOf(test: Test): [key: string, point: string][] {
  const { pick } = observationOf(test.test).form;
  if (pick.kind !== "points") return [];
  return pick.keys.flatMap((key) => {
    const point: unknown = Reflect.get(test, key);
    return typeof point === "string" ? [[key, point] as [string, string]] : [];
  });
}

/** The test a hand really does when it is sent to do this one: the same, at the points it can touch. */
export function testAsTouched<T extends Test>(netlist: Netlist, test: T): T {
  const done: T = { ...test };
  for (const [key, point] of pointsOf(test)) Reflect.set(done, key, touched(netlist, point, test.unplugged));
  return done;
}

/** Whether a test names a point no probe can touch in its set-up. */
export const asksTheUnreachable = (netlist: Netlist, test: Test): boolean =>
  pointsOf(test).some(([, point]) => !isReachable(netlist, point, new Set(test.unplugged)));

import { observationOf } from "./observations/index";
import type { Test } from "./reading";

/** The point of a test's probe, if it has one; of two points, the first. */
export function probedPoint(test: Test): string | null {
  const { pick } = observationOf(test.test).form;
  if (pick.kind !== "points") return null;
  const point: unknown = Reflect.get(test, pick.keys[0]);
  return typeof point === "string" ? point : null;
}

import { observationOf } from "./observations/index";
import type { Test } from "./reading";

/** The point a probe sits on for a test, if it has one: the first of the two it is made between. */
export function probedPoint(test: Test): string | null {
  const { pick } = observationOf(test.test).form;
  if (pick.kind !== "points") return null;
  const point: unknown = Reflect.get(test, pick.keys[0]);
  return typeof point === "string" ? point : null;
}

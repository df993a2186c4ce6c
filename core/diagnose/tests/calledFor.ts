import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { runsOn } from "./makeSafe";

/**
 * Which tests the complaint calls for. A finger goes over the vent hole only where somebody told of a whistle, and a
 * control's plug is pulled to see whether the blower stops only if it will not stop (common practice, no source).
 */
export function calledFor(compiled: CompiledCircuit, readings: readonly Reading[]): (test: Test) => boolean {
  const whistles = readings.some((own) => own.test === "listen" && own.seen === "whistle");
  const wontStop = runsOn(compiled, readings);
  return (test) => {
    if (test.test === "listen") return !test.ventCovered || whistles;
    const pulled = test.test === "airflow" && (test.unplugged?.length ?? 0) > 0 && !test.bridged?.length;
    return !pulled || wontStop;
  };
}

import { fittingNeedsBatteryOff } from "@core/access/fittingStep";
import { quickestRoute } from "@core/access/route";
import { learntMinutes, shopPace } from "@core/access/stepTimes";
import { usualRepair } from "@core/diagnose/verdict/stopping";
import { bookMinutes } from "@core/money/bookTime";
import { ownSteps } from "@core/workList/ownSteps";
import { usualWork } from "@core/workList/proposedWork";
import type { WorkLine } from "@core/workList/workLine";
import { bookTimesOf } from "@db/repositories/bookTimes.server";
import { findPlan } from "@db/repositories/plans.server";
import { measuredSteps, repairOf } from "@db/repositories/repairs.server";
import type { JobView } from "../job/jobView.server";
import { fittingsOfMatches, type JobMatch } from "../parts/jobMatches.server";

/** Minutes of the final check: key on, every speed, listening (judgement). */
export const proofMinutes = 5;

/**
 * Minutes at the car for several lines of work together. They are the sum of removal and refitting by the plan at this
 * shop's pace, with shared steps counted once; the adaptations of the new parts; the planned minutes of anything else;
 * and the final check. Book time uses the hours entered for the model in place of removal and refitting.
 */
export async function labourOf(view: JobView, lines: readonly WorkLine[], matches: readonly JobMatch[]) {
  const { circuit, job } = view;
  const [stored, fit, measured, entered] = await Promise.all([
    findPlan(circuit.id),
    repairOf(job.id),
    measuredSteps(circuit.id),
    bookTimesOf(circuit.id),
  ]);
  const pace = stored ? shopPace(stored.plan, measured) : null;
  const isReached = (id: string): boolean => stored !== null && Object.hasOwn(stored.plan.targets, id);
  /** Minutes of a line that no route leads to; an adaptation is counted with the part it is done for. */
  const outside = (id: string): number => {
    const line = lines.find((own) => (own.part ?? own.id) === id);
    if (line?.adapts) return 0;
    return line && !line.part
      ? (line.plannedMinutes ?? 0)
      : usualRepair(circuit, id, view.costs.repairs).minutes;
  };
  /** The work on new parts, and on plugs and wires themselves. */
  const onParts = (ids: readonly string[]) =>
    fittingsOfMatches(matches.filter(({ part }) => ids.includes(part)));
  const onPlugs = (ids: readonly string[]) =>
    ownSteps(
      circuit,
      ids.map((id) => {
        const line = lines.find(({ part }) => part === id);
        return { part: id, done: line?.done ?? usualWork(circuit, id), adapts: line?.adapts };
      }),
      onParts(ids),
    );
  const access = (ids: readonly string[], book: boolean): number => {
    const reached = ids.filter(isReached);
    const route =
      stored && pace && reached.length > 0
        ? quickestRoute(stored.plan, reached, {
            prefer: book ? "book" : (fit?.prefer ?? "quickest"),
            batteryOff: fittingNeedsBatteryOff([...onParts(ids), ...onPlugs(ids)]),
            ...(book ? {} : { minutesOf: (step) => learntMinutes(step, pace, measured).minutes }),
          })
        : null;
    const others = route?.ok ? ids.filter((id) => !isReached(id)) : ids;
    return (route?.ok ? 2 * route.value.minutes : 0) + others.reduce((sum, id) => sum + outside(id), 0);
  };
  const adapting = (ids: readonly string[]): number =>
    ids.reduce((sum, id) => sum + (matches.find(({ part }) => part === id)?.match?.workMinutes ?? 0), 0);
  /** Minutes of everything beyond removal and refitting. Where no route leads, the usual minutes include the work. */
  const working = (ids: readonly string[]): number =>
    onPlugs(ids)
      .filter(({ part }) => isReached(part))
      .reduce((sum, { adaptation: { minutes } }) => sum + minutes, adapting(ids));
  return {
    /** Without the final check. */
    workMinutes: (ids: readonly string[]): number => access(ids, false) + working(ids),
    labourMinutes: (ids: readonly string[]): number => access(ids, false) + working(ids) + proofMinutes,
    bookMinutes: (ids: readonly string[]): number =>
      bookMinutes(ids, {
        entered,
        alone: (id) => access([id], true),
        together: (own) => access(own, true),
      }) +
      working(ids) +
      proofMinutes,
  };
}

/** Tells the minutes of a job's lines of work. */
export type Labour = Awaited<ReturnType<typeof labourOf>>;

import { faultLabel } from "@core/diagnose/belief/learnedPrior";
import { chartMinutes } from "@core/diagnose/tests/flowChart";
import { repairKind } from "@core/diagnose/verdict/stopping";
import { priced } from "@core/money/estimate";
import { type Closure, type ClosureFinding, closureProblem, closureSchema } from "@core/records/closure";
import { learnedFaults } from "@core/records/learnedFaults";
import { symptomOf } from "@core/records/symptom";
import { familyName } from "@core/solve/checks/circuitFamily";
import type { NewClosure } from "@db/repositories/closures.server";
import { estimatesOf } from "@db/repositories/estimates.server";
import { screwsText } from "@words/trayWords";
import { checkView } from "../check/checkView.server";
import { minutesTicked } from "../estimate/estimateView.server";
import { findingsAsked, findingsFrom } from "../job/findingsAsked.server";
import { activeReadings, type JobView, jobViewAt, minutesTesting } from "../job/jobView.server";
import { screwsLeft } from "../repair/repairRemarks.server";
import { afterwards, repairedParts } from "./closeView.server";

/** The most parts a closure names. */
const mostParts = 8;

/** The close form's content as a closure to be stored, or what is missing. */
export async function closureFrom(
  id: string | undefined,
  fields: Readonly<Record<string, string>>,
): Promise<{ problem: string } | { closure: NewClosure }> {
  const view = await jobViewAt(id);
  const { job, circuit, engine } = view;
  const text = (name: string) => (fields[name]?.trim() ? { [name]: fields[name].trim() } : {});
  if (!job.fittedAt || (await checkView(job, circuit)).whole !== "proven")
    return { problem: "the final check is not finished: every step must be as expected" };
  const { open } = await screwsLeft(job, circuit);
  if (open.length > 0)
    return { problem: `${screwsText(open)} not accounted for; say on Repair what became of them` };
  const { odds } = await afterwards(view);
  const findings = findingsFrom(findingsAsked(view), fields);
  if (!findings) return { problem: "What was found: choose one of the answers offered" };
  const learned = learnedFaults(findings, fields.learn === "yes", "stopgap" in text("stopgap"));
  const parts = repairedParts(view);
  const parsed = closureSchema.safeParse({
    found: fields.found ?? "",
    fault: learned.main?.fault ?? "unknown",
    parts: parts.length > 0 ? parts.slice(0, mostParts) : ["other"],
    findings,
    cause: fields.cause || "unsaid",
    ...text("causeWords"),
    ...text("stopgap"),
    ...text("followUpOn"),
    ...text("advice"),
    comeback: odds,
    learn: learned.teaches,
  } satisfies Record<keyof Pick<Closure, "found" | "fault" | "parts" | "cause" | "learn">, unknown> &
    Record<string, unknown>);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return {
      problem: issue
        ? `${issue.path.join(".")}: ${issue.message}`
        : "the form could not be read; load the page again",
    };
  }
  const problem = closureProblem(parsed.data);
  if (problem) return { problem };
  const closure = parsed.data;
  const index = engine.variants.findIndex(({ family }) => family === closure.fault);
  return { closure: await storedClosure(view, closure, index, learned.further) };
}

/**
 * A closure with what the records count of its job.
 * @param index of the fault among the circuit's variants; -1 for a cause outside the list
 * @param further other faults proved on the job
 */
async function storedClosure(
  view: JobView,
  closure: Closure,
  index: number,
  further: readonly ClosureFinding[],
): Promise<NewClosure> {
  const { job, circuit, engine } = view;
  const variant = engine.variants[index];
  const bill = (await estimatesOf(job.id)).findLast(({ kind, approvedAt }) => kind === "bill" || approvedAt);
  const readings = activeReadings(view);
  const complaint = readings.filter(({ heard }) => heard);
  return {
    closure,
    ...(variant ? faultLabel(engine, variant) : { kind: "unknown", mode: "unknown" }),
    family: familyName(engine.netlist),
    furtherFaults: further.flatMap(({ part, fault }) => {
      const other = engine.variants.find(({ family: own }) => own === fault);
      return other ? [{ part, fault, ...faultLabel(engine, other), counted: closure.learn }] : [];
    }),
    symptom: symptomOf(circuit, readings),
    looks: readings.length - complaint.length,
    minutes: minutesTesting(engine, readings),
    chartMinutes: variant ? chartMinutes(engine, complaint, index) : null,
    repairKind: repairKind(circuit, closure.parts[0] ?? ""),
    // The ticks measure all works together, so with several of them no single one has a time.
    repairMinutes:
      view.works.filter(({ state }) => state === "done").length > 1 ? null : await minutesTicked(view),
    totalMinor: bill ? priced(bill.body.lines, bill.body.rounding).totalMinor : null,
    closedAt: new Date(),
  };
}

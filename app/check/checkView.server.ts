import type { Circuit } from "@core/circuit/circuit";
import { circuitWith } from "@core/match/newPart";
import { plainNumber } from "@core/match/supersession";
import { type ProofBands, proofBands } from "@core/proof/proofBand";
import { type ProofFinding, proofState, wholeState } from "@core/proof/proofFinding";
import { type ProofPhase, type ProofStep, proofPhases, proofSteps } from "@core/proof/proofRun";
import { buildNetlist } from "@core/solve/buildNetlist";
import type { Netlist } from "@core/solve/netlist/netlist";
import { ampsText, voltsText } from "@core/units/wording";
import type { Job } from "@db/repositories/jobs.server";
import { listParts, matchesOf } from "@db/repositories/parts.server";
import { proofsOf } from "@db/repositories/proofs.server";
import { proofStepTitle } from "@words/proofWords";
import { airflowWords } from "@words/stateWords";
import { randomId } from "../text/randomId";

/** The circuit with the new parts fitted, and what its steps show; computed once for the same parts. */
interface RepairedCircuit {
  readonly netlist: Netlist;
  readonly bands: Map<string, ProofBands | null>;
}

const made = new WeakMap<Circuit, Map<string, RepairedCircuit>>();

/** The circuit with the new parts that were compared for a job, as far as their figures are known. */
async function repaired(job: Job, circuit: Circuit): Promise<RepairedCircuit> {
  const [parts, matches] = await Promise.all([listParts(), matchesOf(job.id)]);
  const fresh = (job.fitted ?? []).flatMap((part) => {
    const number = matches.find((own) => own.part === part)?.newNumber;
    const described = number ? parts.find((own) => plainNumber(own.number) === plainNumber(number)) : null;
    return described ? [{ part, described }] : [];
  });
  const key = JSON.stringify(fresh);
  const own = made.get(circuit) ?? new Map<string, RepairedCircuit>();
  made.set(circuit, own);
  const known = own.get(key);
  if (known) return known;
  const changed = fresh.reduce((so, { part, described }) => circuitWith(so, part, described) ?? so, circuit);
  const netlist = buildNetlist(changed);
  if (!netlist.ok) throw new Error(`${circuit.id} cannot be solved with the new part`);
  const kept = { netlist: netlist.value, bands: new Map<string, ProofBands | null>() };
  own.set(key, kept);
  return kept;
}

function bandsAt({ netlist, bands }: RepairedCircuit, step: ProofStep): ProofBands | null {
  if (step.kind !== "air") return null;
  const known = bands.get(step.id);
  if (known !== undefined) return known;
  const own = proofBands(netlist, step.setup);
  bands.set(step.id, own);
  return own;
}

/** A step by its name, with what a sound vehicle shows in it; null if there is no such step. */
export async function checkStep(job: Job, circuit: Circuit, id: string) {
  const step = proofSteps(circuit).find((own) => own.id === id);
  return step ? { step, bands: bandsAt(await repaired(job, circuit), step) } : null;
}

/** A finding in words, for the page and the card. */
export function findingText(finding: ProofFinding): string {
  switch (finding.by) {
    case "airflow":
      return airflowWords[finding.seen];
    case "amps":
      return ampsText(finding.amps);
    case "volts":
      return voltsText(finding.volts);
    case "listen":
      return finding.seen;
    case "check":
      return finding.good ? "good" : "not good";
  }
}

const expectedText = (step: ProofStep): string =>
  step.kind === "air" ? airflowWords[step.expected] : step.kind === "listen" ? "quiet" : "good";

/** The final check of the parts a job fitted: every step, what a sound vehicle shows, and what was found. */
export async function checkView(job: Job, circuit: Circuit) {
  const [own, found] = await Promise.all([
    repaired(job, circuit),
    job.fittedAt ? proofsOf(job.id, job.fittedAt) : [],
  ]);
  const byStep = new Map(found.map((entry) => [entry.step, entry]));
  const steps = proofSteps(circuit).map((step) => {
    const entry = byStep.get(step.id) ?? null;
    return {
      id: step.id,
      title: proofStepTitle(step),
      phase: step.phase,
      kind: step.kind,
      does: step.kind === "air" ? step.does : null,
      setting:
        step.kind === "air" ? (Object.values(step.setup.selectors ?? {})[0] ?? step.setup.setting) : null,
      check: step.kind === "check" ? step.check : null,
      expected: expectedText(step),
      bands: bandsAt(own, step),
      found: entry ? findingText(entry.finding) : null,
      finding: entry?.finding ?? null,
      judged: entry?.judged ?? null,
      token: randomId(),
    };
  });
  const standingOf = (phase: ProofPhase) =>
    proofState(steps.filter((step) => step.phase === phase).map(({ judged }) => judged));
  const [open, closed] = proofPhases.map(standingOf);
  const standing = { open: open ?? "waiting", closed: closed ?? "waiting" };
  return { steps, standing, whole: wholeState(standing) };
}

export type CheckData = Awaited<ReturnType<typeof checkView>>;
export type CheckLineData = CheckData["steps"][number];

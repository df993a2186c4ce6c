import type { Circuit } from "@core/circuit/circuit";
import type { NextTest as CoreLook, DiagnoseOptions, Diagnosis } from "@core/diagnose/diagnose";
import { expectedResult } from "@core/diagnose/explain/expectation";
import { pathBoard, sharedByDead, speedWords } from "@core/diagnose/explain/pathBoard";
import {
  beliefHistory,
  groupOf,
  type SuspectGroup,
  suspectGroups,
} from "@core/diagnose/history/beliefHistory";
import { cautionsOf } from "@core/diagnose/tests/caution";
import { makeSafe } from "@core/diagnose/tests/makeSafe";
import { isCleared } from "@core/diagnose/verdict/cleared";
import { parseFaultId } from "@core/fault/faultId";
import { notListed, type Repair, repairText, theCar } from "@core/fault/repair";
import { comesAndGoes } from "@core/predict/moment";
import { observationOf } from "@core/predict/observations/index";
import { probedPoint } from "@core/predict/probedPoint";
import { healthyVariant } from "@core/predict/tables/compiledCircuit";
import { perCircuit } from "@core/predict/tables/perCircuit";
import { minutesText } from "@core/units/wording";
import { makeSafeText } from "@words/makeSafeWords";
import { faultWords, nameOfRepair, partName, repairName } from "@words/partName";
import { placeText } from "@words/placeText";
import { conflictText, suspectWhyText } from "@words/reasonWords";
import { capitalised } from "@words/seenName";
import { airflowWords } from "@words/stateWords";
import { wordingOf } from "@words/tests/index";
import { rangeWords } from "@words/tests/rangeWords";
import { evidenceText, expectationText, outcomeText, resultText, testWords } from "@words/tests/testText";
import { verdictName } from "@words/verdictTitle";
import { diagnosisOf } from "../job/diagnosis.server";
import { activeNumbers, activeReadings, evidenceLines, type JobView, noteLines } from "../job/jobView.server";
import { randomId } from "../text/randomId";
import type { OfferedTest } from "./offeredTest";
import type { SuspectLine } from "./suspectLine";

const looksOffered = 8;
const suspectsShown = 6;
const assumedShown = 3;
/** How the probe page asks for a diagnosis. */
export const probeOptions: DiagnoseOptions = { asIf: assumedShown + 1 };

function offeredLook(
  { circuit, engine, job }: JobView,
  verdict: Diagnosis["verdict"],
  next: CoreLook,
  runsOn: boolean,
): OfferedTest {
  const { test, minutes, bits, outcomes, visit } = next;
  const model = observationOf(test.test);
  const sound = model.gives === "number" ? Number(expectedResult(engine, test, healthyVariant).value) : 0;
  const fullVolts = engine.samples[0]?.values.restVolts ?? 0;
  return {
    look: JSON.stringify(test),
    test: test.test,
    words: testWords(circuit, test),
    minutes,
    visit: visit ? { place: placeText(visit.place), minutes: visit.minutes } : null,
    bits,
    why: whyText(circuit, verdict, next),
    setting: test.setting ?? null,
    needsPower: runsOn && model.form.setup === "live",
    cautions: cautionsOf(engine, test, runsOn).filter((caution) => !job.cautionsRead.includes(caution)),
    probe: probedPoint(test),
    outcomes: outcomes.map(({ seen, value, range, p, pieces, leaves }) => ({
      seen,
      lead: range && rangeWords(test.test, range, sound, fullVolts),
      words: outcomeText(test.test, seen),
      value: value === null ? null : Number(value.toPrecision(3)),
      p,
      pieces: pieces.flatMap((piece) =>
        piece.value === null || piece.p < leastPiece
          ? []
          : [{ words: outcomeText(test.test, piece.seen), value: Number(piece.value.toPrecision(3)) }],
      ),
      leaves: `→ ${leaves
        .filter((left) => left.p >= 0.1)
        .slice(0, 2)
        .map(({ part }) => (part === null ? "something else" : part === theCar ? "filter" : part))
        .join(", ")}`,
    })),
    choices: model.gives === "word" ? model.outcomes : null,
    unit: wordingOf(test.test).unit ?? null,
  };
}

/** Why a test is suggested: it belongs to the next visit, it proves the verdict, or it tells the most for its time. */
function whyText(
  circuit: Circuit,
  verdict: Diagnosis["verdict"],
  { test, minutes, visit }: CoreLook,
): string {
  if (verdict.proof.missing.some((own) => own === test))
    return `${capitalised(verdictName(circuit, { verdict }))} is almost certain. This test is part of its proof.`;
  if (visit && verdict.payingLook !== test) return "It is worth doing while you are at this place.";
  return `Of the tests considered it is expected to tell the most for its time: ${minutesText(minutes)}, including getting there.`;
}

/** A piece of a joined range is offered from this probability on. */
const leastPiece = 0.01;

type Faults = SuspectLine["faults"][number][];

const faultsShown = 4;

function suspectLines(view: JobView, { suspects }: Diagnosis): SuspectLine[] {
  const { circuit, engine } = view;
  const groups = suspectGroups(engine);
  const lines = new Map<SuspectGroup, { p: number; faults: Faults }>();
  for (const { repair, fault, modes, p, why } of suspects) {
    const group = groupOf(groups, repair, modes);
    const line = lines.get(group) ?? { p: 0, faults: [] };
    lines.set(group, line);
    line.p += p;
    if (line.faults.length < faultsShown && (p >= 0.005 || line.faults.length === 0))
      line.faults.push({
        fault: fault ?? repairText(notListed),
        words: fault === null ? "outside this circuit" : faultWords(fault),
        p,
        why: suspectWhyText(circuit, why),
      });
  }
  const shown = [...lines]
    .sort(([, a], [, b]) => b.p - a.p)
    .filter(([{ repair }, { p }], index) => index < suspectsShown && (p >= 0.004 || repair === notListed));
  const { counts, ofFamily: familyCounts } = view.learnt;
  const moved = beliefHistory(
    engine,
    activeReadings(view),
    { repairs: view.repairs, earlier: view.earlier, counts, familyCounts },
    new Map([...lines].map(([group, { p }]) => [group, p])),
  );
  return shown.map(([group, line]) => ({
    key: `${repairText(group.repair)}${group.mechanical ? " mechanical" : ""}`,
    repair: repairText(group.repair),
    mechanical: group.mechanical,
    ...line,
    name: `${nameOfRepair(circuit, group.repair)}${group.mechanical ? ", mechanical" : ""}`,
    moved: moved.get(group) ?? [],
  }));
}

/** The belief in each piece with faults of its own before any reading. */
const piecePriors = perCircuit(({ variants }): ReadonlyMap<string, number> => {
  const sums = new Map<string, number>();
  for (const { fault, prior } of variants)
    for (const { where } of fault.names) sums.set(where, (sums.get(where) ?? 0) + prior);
  return sums;
});
const boardOf = perCircuit(({ netlist }) => pathBoard(netlist));

/** Belief in each piece: the faults whose id begins with it. */
function pieceBeliefs(suspects: Diagnosis["suspects"]): ReadonlyMap<string, number> {
  const sums = new Map<string, number>();
  for (const { fault, p } of suspects) {
    const names = fault === null ? null : parseFaultId(fault);
    const pieces = new Set(names?.ok ? names.value.flatMap(({ where }) => [where, ...within(where)]) : []);
    for (const piece of pieces) sums.set(piece, (sums.get(piece) ?? 0) + p);
  }
  return sums;
}

/** The plug a pin is in. */
const within = (where: string): string[] => (where.includes(":") ? [where.slice(0, where.indexOf(":"))] : []);

/** The rows of the path board with what the readings say about them. */
function boardLines(
  { engine, circuit }: JobView,
  { suspects, parts }: Diagnosis,
  clear: readonly string[],
  words: ReadonlyMap<string, string>,
) {
  const { settings } = circuit;
  const rows = boardOf(engine);
  const shared = new Set(sharedByDead(rows, settings, words));
  const before = piecePriors(engine);
  const cleared = new Set(clear);
  const pieces = pieceBeliefs(suspects);
  const believed = new Map(parts.map(({ part, p }) => [part, p]));
  /** A piece with faults of its own is shown by itself, any other by its part. */
  const standing = (id: string, part: string) => {
    if (id === part || !before.has(id)) return { p: believed.get(part) ?? 0, cleared: cleared.has(part) };
    const p = pieces.get(id) ?? 0;
    return { p, cleared: isCleared(p, before.get(id) ?? 0) };
  };
  return rows.map(({ id, part, amps }) => ({
    id,
    part,
    name: partName(circuit, part),
    amps: amps.map((own) => Math.round(own * 100) / 100),
    shared: shared.has(id),
    ...standing(id, part),
  }));
}

/** The readings compared with each suspect's predictions, by fault. */
function agreements(
  { circuit, stored }: JobView,
  { suspects, asIf = [] }: Diagnosis,
  faults: readonly string[],
) {
  const standing = stored.filter(({ struckAt }) => !struckAt);
  return Object.fromEntries(
    faults.map((fault) => {
      const own = asIf[suspects.findIndex((suspect) => suspect.fault === fault)] ?? [];
      const lines = own.map(({ reading, expected, agrees }) => {
        const at = standing[reading] as (typeof standing)[number];
        return {
          number: at.number,
          what: evidenceText(circuit, at.reading),
          seen: resultText(at.reading),
          expected: expectationText(expected),
          agrees,
        };
      });
      return [fault, lines];
    }),
  );
}

/**
 * The probability the drawing shows at each part: of the likeliest repair it is part of, so that the drawing and the
 * list of suspects show the same figure.
 */
function doubtOf({ suspects }: Diagnosis): Record<string, number> {
  const byRepair = new Map<Repair, number>();
  for (const { repair, p } of suspects) byRepair.set(repair, (byRepair.get(repair) ?? 0) + p);
  const most = new Map<string, number>();
  for (const [{ parts }, p] of byRepair)
    for (const part of parts) if (p >= 0.005) most.set(part, Math.max(p, most.get(part) ?? 0));
  return Object.fromEntries([...most].map(([part, p]) => [part, Math.round(p * 1000) / 1000]));
}

/** Everything the probe page shows of a job. */
export function probeView(view: JobView) {
  const { job, circuit, stored, notes } = view;
  const numbers = activeNumbers(view);
  const diagnosis = diagnosisOf(view, probeOptions);
  const under = diagnosis.suspects
    .flatMap(({ fault, p }) => (fault !== null && p > 0.01 ? [fault] : []))
    .slice(0, assumedShown);
  const words = speedWords(activeReadings(view));
  const safe = makeSafe(view.engine, activeReadings(view));
  const cleared = diagnosis.clearedParts;
  return {
    id: job.id,
    stage: job.stage,
    school: job.school,
    varies: comesAndGoes(activeReadings(view)),
    cautionsRead: job.cautionsRead,
    version: view.version,
    under: under.map((fault) => ({ fault, words: `${fault.split(/[.:/]/)[0] ?? ""} ${faultWords(fault)}` })),
    agreements: agreements(view, diagnosis, under),
    heard: Object.fromEntries([...words].map(([setting, seen]) => [setting, airflowWords[seen]])),
    doubt: doubtOf(diagnosis),
    cleared,
    board: boardLines(view, diagnosis, cleared, words),
    looks: diagnosis.next
      .slice(0, looksOffered)
      .map((next) => offeredLook(view, diagnosis.verdict, next, safe !== null)),
    /** How to silence a blower that will not stop; null if it stops. */
    makeSafe: safe && makeSafeText(circuit, safe),
    suspects: suspectLines(view, diagnosis),
    verdict: {
      state: diagnosis.verdict.state,
      p: diagnosis.verdict.p,
      name: verdictName(circuit, diagnosis),
    },
    evidence: evidenceLines(circuit, stored, notes),
    /** Parts fitted that did not fix the fault, by the number of the last reading before each. */
    repairs: view.repairs.map(({ after, parts }) => ({
      after: numbers[after - 1] ?? 0,
      name: repairName(circuit, parts),
    })),
    /** The visit that this one is a comeback of, and what was put right then. */
    earlier:
      view.earlier && view.job.comebackOf !== null
        ? { job: view.job.comebackOf, name: repairName(circuit, view.earlier.parts) }
        : null,
    notes: noteLines(notes.filter(({ readingId, workId }) => readingId === null && workId === null)),
    conflicts: diagnosis.conflicts.map((conflict) => ({
      number: conflict.slip.number,
      why: conflictText(circuit, conflict),
    })),
    token: randomId(),
  };
}

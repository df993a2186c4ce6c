import { beliefHistory } from "@core/diagnose/beliefHistory";
import { cautionsOf } from "@core/diagnose/caution";
import { isCleared } from "@core/diagnose/cleared";
import type { NextLook as CoreLook, DiagnoseOptions, Diagnosis } from "@core/diagnose/diagnose";
import { pathBoard, sharedByDead, speedWords } from "@core/diagnose/pathBoard";
import { isMechanical } from "@core/motor/mechanicalMode";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import { evidenceText } from "@core/predict/readingText";
import { testModels } from "@core/predict/tests/index";
import { minutesText } from "@core/units/wording";
import { versionOf } from "@db/repositories/jobVersion.server";
import type { OfferedLook } from "./components/NextLook";
import type { SuspectLine } from "./components/Suspects";
import { airflowWords, displayUnits } from "./components/words";
import { lookWords, probePoint } from "./format/lookWords";
import { faultWords, partName, repairName } from "./format/partName";
import {
  diagnosisOf,
  evidenceLines,
  type JobView,
  noteLines,
  standingNumbers,
  standingReadings,
} from "./jobView.server";

const looksOffered = 8;
const suspectsShown = 6;
const assumedShown = 3;
/** How the probe page asks for a diagnosis. */
export const probeOptions: DiagnoseOptions = { asIf: assumedShown + 1 };

function offeredLook({ circuit, engine, job }: JobView, next: CoreLook): OfferedLook {
  const { test, minutes, bits, outcomes } = next;
  const model = testModels[test.test];
  return {
    look: JSON.stringify(test),
    test: test.test,
    words: lookWords(circuit, test),
    minutes,
    bits,
    why: `Of the looks weighed it is expected to tell most for its minutes: ${bits.toFixed(2)} bits about what to replace, in ${minutesText(minutes)} with the way there.`,
    setting: test.setting ?? null,
    cautions: cautionsOf(engine, test).filter((caution) => !job.cautionsRead.includes(caution)),
    probe: probePoint(test),
    outcomes: outcomes.map(({ seen, value, p, leaves }) => ({
      seen,
      value: value === null ? null : Number(value.toPrecision(3)),
      p,
      leaves: `→ ${leaves
        .filter((left) => left.p >= 0.1)
        .slice(0, 2)
        .map(({ part }) => (part === "unknown" ? "something else" : part === "CAR" ? "filter" : part))
        .join(", ")}`,
    })),
    choices: model.gives === "word" ? model.outcomes : null,
    unit: displayUnits[test.test] ?? null,
  };
}

/** A motor that squeals and one that is dead are two suspects, though one part. */
const groupOf = (repair: string, mechanical: boolean): string =>
  mechanical ? `${repair} mechanical` : repair;

function suspectLines(view: JobView, { suspects }: Diagnosis): SuspectLine[] {
  const { circuit, engine } = view;
  const byPart = new Map<string, SuspectLine & { faults: SuspectLine["faults"][number][] }>();
  for (const { part: repair, fault, mode, p, why } of suspects) {
    const mechanical = mode.split("+").every(isMechanical);
    const part = groupOf(repair, mechanical);
    const line = byPart.get(part) ?? {
      part,
      repair,
      mechanical,
      name: repairName(circuit, repair.split("+")),
      p: 0,
      moved: [],
      faults: [],
    };
    const faults =
      line.faults.length < 4 && (p >= 0.005 || line.faults.length === 0)
        ? [
            ...line.faults,
            { fault, words: fault === "unknown" ? "outside this circuit" : faultWords(fault), p, why },
          ]
        : line.faults;
    byPart.set(part, { ...line, p: line.p + p, faults });
  }
  const shown = [...byPart.values()]
    .sort((a, b) => b.p - a.p)
    .filter(({ p, part }, index) => index < suspectsShown && (p >= 0.004 || part === "unknown"));
  const standing = standingReadings(view);
  const { counts, ofFamily: familyCounts } = view.learnt;
  const moved = beliefHistory(
    engine,
    standing,
    { repairs: view.repairs, counts, familyCounts },
    ({ fault, repair }) =>
      groupOf(
        repair,
        fault.names.every(({ mode }) => isMechanical(mode)),
      ),
  );
  return shown.map((line) => ({ ...line, moved: moved.get(line.part) ?? [] }));
}

/** Parts the readings have all but cleared. */
function clearedParts(engine: CompiledCircuit, { parts }: Pick<Diagnosis, "parts">): string[] {
  const before = new Map<string, number>();
  for (const { fault, prior } of engine.variants) {
    for (const part of fault.parts) before.set(part, (before.get(part) ?? 0) + prior);
  }
  return parts.filter(({ part, p }) => isCleared(p, before.get(part) ?? 0)).map(({ part }) => part);
}

/** The lines of the path board with what the readings say of them. */
function boardLines(
  { engine, circuit }: JobView,
  { suspects, parts }: Diagnosis,
  words: ReadonlyMap<string, string>,
) {
  const { settings } = circuit;
  const rows = engine.remember("path board", () => pathBoard(engine.netlist));
  const shared = new Set(sharedByDead(rows, settings, words));
  const before = engine.variants.reduce((sums, { fault, prior }) => {
    for (const { where } of fault.names) sums.set(where, (sums.get(where) ?? 0) + prior);
    return sums;
  }, new Map<string, number>());
  const cleared = new Set(clearedParts(engine, { parts }));
  const pieceBelief = (id: string): number =>
    suspects.reduce(
      (sum, { fault, p }) => sum + (fault.split("+").some((one) => one.startsWith(`${id}:`)) ? p : 0),
      0,
    );
  /** A piece with faults of its own stands for itself, any other for its part. */
  const standing = (id: string, part: string) => {
    if (id === part || !before.has(id))
      return { p: parts.find((one) => one.part === part)?.p ?? 0, cleared: cleared.has(part) };
    const p = pieceBelief(id);
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

/** The readings as if each suspect were true, by fault. */
function agreements({ stored }: JobView, { suspects, asIf = [] }: Diagnosis, faults: readonly string[]) {
  const standing = stored.filter(({ struckAt }) => !struckAt);
  return Object.fromEntries(
    faults.map((fault) => {
      const own = asIf[suspects.findIndex((suspect) => suspect.fault === fault)] ?? [];
      const lines = own.map(({ reading, expected, seen, agrees }) => {
        const at = standing[reading] as (typeof standing)[number];
        return { number: at.number, what: evidenceText(at.reading), seen, expected, agrees };
      });
      return [fault, lines];
    }),
  );
}

/** Everything the probe page shows of a job. */
export function probeView(view: JobView) {
  const { job, circuit, engine, stored, notes } = view;
  const numbers = standingNumbers(view);
  const diagnosis = diagnosisOf(view, probeOptions);
  const under = diagnosis.suspects
    .filter(({ fault, p }) => fault !== "unknown" && p > 0.01)
    .slice(0, assumedShown)
    .map(({ fault }) => fault);
  const words = speedWords(standingReadings(view));
  return {
    id: job.id,
    stage: job.stage,
    school: job.school,
    cautionsRead: job.cautionsRead,
    version: versionOf(stored, notes),
    under: under.map((fault) => ({ fault, words: `${fault.split(/[.:]/)[0] ?? ""} ${faultWords(fault)}` })),
    agreements: agreements(view, diagnosis, under),
    heard: Object.fromEntries([...words].map(([setting, seen]) => [setting, airflowWords[seen]])),
    doubt: Object.fromEntries(
      diagnosis.parts.filter(({ p }) => p >= 0.005).map(({ part, p }) => [part, Math.round(p * 1000) / 1000]),
    ),
    cleared: clearedParts(engine, diagnosis),
    board: boardLines(view, diagnosis, words),
    looks: diagnosis.next.slice(0, looksOffered).map((next) => offeredLook(view, next)),
    suspects: suspectLines(view, diagnosis),
    verdict: {
      state: diagnosis.verdict.state,
      p: diagnosis.verdict.p,
      name: repairName(circuit, diagnosis.verdict.replace),
    },
    evidence: evidenceLines(stored, notes),
    /** What was fitted and did not hold, by the number of the last reading before it. */
    repairs: view.repairs.map(({ after, parts }) => ({
      after: numbers[after - 1] ?? 0,
      name: repairName(circuit, parts),
    })),
    notes: noteLines(notes.filter(({ readingId }) => readingId === null)),
    conflicts: diagnosis.conflicts.map(({ reading, why }) => ({ number: numbers[reading] ?? 0, why })),
    token: crypto.randomUUID(),
  };
}

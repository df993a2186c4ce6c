import { isCleared } from "@core/diagnose/cleared";
import type { NextLook as CoreLook, Diagnosis } from "@core/diagnose/diagnose";
import { pathBoard, sharedByDead, speedWords } from "@core/diagnose/pathBoard";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import type { TestName } from "@core/predict/reading";
import { evidenceText } from "@core/predict/readingText";
import { testModels } from "@core/predict/tests/index";
import { minutesText } from "@core/units/wording";
import { readingsVersion } from "@db/repositories/readings.server";
import type { OfferedLook } from "./components/NextLook";
import type { SuspectLine } from "./components/Suspects";
import { airflowWords, displayUnits } from "./components/words";
import { layoutOf } from "./drawing/circuitLayout.server";
import { lookWords, probePoint } from "./format/lookWords";
import { faultWords, partName, repairName } from "./format/partName";
import { diagnosisOf, evidenceLines, type JobView, sheetStates } from "./jobView.server";

const looksOffered = 8;
const suspectsShown = 6;
const assumedShown = 3;

function offeredLook({ circuit }: JobView, next: CoreLook): OfferedLook {
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

function suspectLines({ circuit }: JobView, { suspects }: Diagnosis): SuspectLine[] {
  const byPart = new Map<string, SuspectLine & { faults: SuspectLine["faults"][number][] }>();
  for (const { part, fault, p, why } of suspects) {
    const line = byPart.get(part) ?? { part, name: repairName(circuit, part.split("+")), p: 0, faults: [] };
    const faults =
      line.faults.length < 4 && (p >= 0.005 || line.faults.length === 0)
        ? [
            ...line.faults,
            { fault, words: fault === "unknown" ? "outside this circuit" : faultWords(fault), p, why },
          ]
        : line.faults;
    byPart.set(part, { ...line, p: line.p + p, faults });
  }
  return [...byPart.values()]
    .sort((a, b) => b.p - a.p)
    .filter(({ p, part }, index) => index < suspectsShown && (p >= 0.004 || part === "unknown"));
}

/** Parts the readings have all but cleared. */
function clearedParts(engine: CompiledCircuit, { parts }: Pick<Diagnosis, "parts">): string[] {
  const before = new Map<string, number>();
  for (const { fault, prior } of engine.variants) {
    for (const part of fault.parts) before.set(part, (before.get(part) ?? 0) + prior);
  }
  return parts.filter(({ part, p }) => isCleared(p, before.get(part) ?? 0)).map(({ part }) => part);
}

/** What the form for a reading of one's own offers. */
function ownChoices(engine: CompiledCircuit) {
  const { circuit, points, battery, motors, relays } = engine.netlist;
  const posts = [`${battery.id}.-`, `${battery.id}.+`];
  const wordsOf = (test: keyof typeof testModels): readonly string[] => {
    const model = testModels[test];
    return model.gives === "word" ? model.outcomes : [];
  };
  return {
    settings: circuit.settings,
    points: points.names.filter((name) => !posts.includes(name)),
    posts,
    things: [...circuit.parts, ...circuit.connectors].map(({ id }) => ({
      id,
      name: `${id}, ${partName(circuit, id)}`,
    })),
    motors: motors.map(({ part }) => part.id),
    plugs: circuit.connectors.map(({ id }) => id),
    relays: relays.map(({ part }) => part.id),
    fuses: circuit.parts.filter(({ kind }) => kind === "fuse").map(({ id }) => id),
    wires: circuit.wires.map(({ id }) => id),
    words: Object.fromEntries(
      (Object.keys(testModels) as TestName[]).map((test) => [test, wordsOf(test)]),
    ) as Record<TestName, readonly string[]>,
  };
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
export async function probeView(view: JobView) {
  const { job, circuit, engine, stored } = view;
  const diagnosis = diagnosisOf(view, { asIf: assumedShown + 1 });
  const under = diagnosis.suspects
    .filter(({ fault, p }) => fault !== "unknown" && p > 0.01)
    .slice(0, assumedShown)
    .map(({ fault }) => fault);
  const words = speedWords(stored.flatMap(({ reading, struckAt }) => (struckAt ? [] : [reading])));
  const battery = circuit.parts.find(({ kind }) => kind === "battery");
  return {
    id: job.id,
    stage: job.stage,
    school: job.school,
    version: await readingsVersion(job.id),
    circuit,
    layout: await layoutOf(engine.netlist),
    states: sheetStates(engine, under),
    fullVolts: battery?.kind === "battery" ? battery.restVolts : 12.6,
    under: under.map((fault) => ({ fault, words: `${fault.split(/[.:]/)[0] ?? ""} ${faultWords(fault)}` })),
    agreements: agreements(view, diagnosis, under),
    heard: Object.fromEntries([...words].map(([setting, seen]) => [setting, airflowWords[seen]])),
    doubt: Object.fromEntries(diagnosis.parts.filter(({ p }) => p >= 0.005).map(({ part, p }) => [part, p])),
    cleared: clearedParts(engine, diagnosis),
    board: boardLines(view, diagnosis, words),
    looks: diagnosis.next.slice(0, looksOffered).map((next) => offeredLook(view, next)),
    suspects: suspectLines(view, diagnosis),
    verdict: {
      state: diagnosis.verdict.state,
      p: diagnosis.verdict.p,
      name: repairName(circuit, diagnosis.verdict.replace),
    },
    evidence: evidenceLines(stored),
    conflicts: diagnosis.conflicts.map(({ reading, why }) => ({ number: reading + 1, why })),
    token: crypto.randomUUID(),
    own: ownChoices(engine),
  };
}

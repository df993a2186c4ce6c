import type { NextLook as CoreLook, Diagnosis } from "@core/diagnose/diagnose";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import type { TestName } from "@core/predict/reading";
import { testModels } from "@core/predict/tests/index";
import { minutesText, percent } from "@core/units/wording";
import { addReading, strikeLast, strikeReading } from "@db/repositories/readings.server";
import { ToggleGroup } from "radix-ui";
import { useEffect, useMemo, useRef, useState } from "react";
import { data, Link, useFetcher, useRouteLoaderData } from "react-router";
import { Evidence } from "../components/Evidence";
import { KeyHelp } from "../components/KeyHelp";
import { keyOf, NextLook, type OfferedLook } from "../components/NextLook";
import { OwnReading } from "../components/OwnReading";
import { type SuspectLine, Suspects } from "../components/Suspects";
import { useProbeKeys } from "../components/useProbeKeys";
import { airflowWords } from "../components/words";
import { CircuitSheet } from "../drawing/CircuitSheet";
import { layoutOf } from "../drawing/circuitLayout.server";
import { engineFor } from "../engine.server";
import { lookWords, probePoint } from "../format/lookWords";
import { faultWords, partName, repairName } from "../format/partName";
import { diagnosisOf, evidenceLines, type JobView, jobAt, jobViewAt, sheetStates } from "../jobView.server";
import type { loader as rootLoader } from "../root";
import type { Route } from "./+types/probe";
import { offeredReading, ownReading, probeForm } from "./probeForm";

const looksOffered = 6;
const suspectsShown = 6;
const assumedShown = 3;

/** Sizes the sheet can be shown at; the first fits it in. */
const zooms = [
  { title: "all", size: null },
  { title: "1×", size: 1.05 },
  { title: "1½×", size: 1.5 },
] as const;

const displayUnits: Partial<Record<TestName, string>> = { volts: "V", ohms: "Ω", amps: "A" };

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
    outcomes: outcomes.map(({ seen, p, leaves }) => ({
      seen,
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

/** Parts that stood under some suspicion at first and that the readings have all but cleared. */
function clearedParts(engine: CompiledCircuit, { parts }: Diagnosis): string[] {
  const before = new Map<string, number>();
  for (const { fault, prior } of engine.variants) {
    for (const part of fault.parts) before.set(part, (before.get(part) ?? 0) + prior);
  }
  return parts.filter(({ part, p }) => p < 0.004 && p < (before.get(part) ?? 0) / 3).map(({ part }) => part);
}

export async function loader({ params }: Route.LoaderArgs) {
  const view = await jobViewAt(params.id);
  const { job, circuit, engine, stored } = view;
  const diagnosis = diagnosisOf(view);
  const under = diagnosis.suspects
    .filter(({ fault, p }) => fault !== "unknown" && p > 0.01)
    .slice(0, assumedShown)
    .map(({ fault }) => fault);
  const heard = stored.flatMap(({ reading, struckAt }) =>
    !struckAt && reading.test === "airflow" && reading.key === "run" && reading.setting !== undefined
      ? [[reading.setting, airflowWords[reading.seen]] as const]
      : [],
  );
  const battery = circuit.parts.find(({ kind }) => kind === "battery");
  return {
    id: job.id,
    stage: job.stage,
    circuit,
    layout: await layoutOf(engine.netlist),
    states: sheetStates(engine, under),
    fullVolts: battery?.kind === "battery" ? battery.restVolts : 12.6,
    under: under.map((fault) => ({ fault, words: `${fault.split(/[.:]/)[0] ?? ""} ${faultWords(fault)}` })),
    heard: Object.fromEntries(heard),
    doubt: Object.fromEntries(diagnosis.parts.filter(({ p }) => p >= 0.005).map(({ part, p }) => [part, p])),
    cleared: clearedParts(engine, diagnosis),
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

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = probeForm.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) return data({ problem: "That entry cannot be read." }, { status: 400 });
  const form = parsed.data;
  const now = new Date();
  if (form.intent === "strike-last") await strikeLast(job.id, now);
  else if (form.intent === "strike") await strikeReading(job.id, form.id, form.struck === "yes" ? now : null);
  else {
    const engine = await engineFor(circuit);
    const entered = form.intent === "reading" ? offeredReading(engine, form) : ownReading(engine, form);
    if ("problem" in entered) return data({ problem: entered.problem }, { status: 400 });
    await addReading({ id: form.token, jobId: job.id, reading: entered.reading, takenAt: now });
  }
  return { problem: undefined };
}

export default function Probe({ loaderData }: Route.ComponentProps) {
  const { circuit, looks, states, token } = loaderData;
  const lettersOn = useRouteLoaderData<typeof rootLoader>("root")?.keys ?? true;
  const [skip, setSkip] = useState({ token, by: 0 });
  const by = skip.token === token ? skip.by : 0;
  const offered = looks[looks.length > 0 ? by % looks.length : 0];
  const [chosen, setChosen] = useState<{ token: string; setting: string } | null>(null);
  const setting =
    chosen && chosen.token === token
      ? chosen.setting
      : (offered?.setting ?? circuit.settings.at(-1) ?? "off");
  const [keyOn, setKeyOn] = useState(true);
  const [under, setUnder] = useState("healthy");
  const [help, setHelp] = useState(false);
  const [zoom, setZoom] = useState<number | null>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const touched = offered?.probe ?? null;
  // Zoomed in, the sheet follows the point the next look touches.
  useEffect(() => {
    if (zoom === null || touched === null) return;
    sheet.current?.querySelector("[data-probe]")?.scrollIntoView({ block: "center", inline: "center" });
  }, [zoom, touched]);
  const fetcher = useFetcher<{ problem?: string }>({ key: "reading" });
  const shownUnder = states.some((state) => state.under === under) ? under : "healthy";
  const state = states.find(
    (one) => one.under === shownUnder && one.setting === setting && one.key === (keyOn ? "run" : "off"),
  );
  const keys = useMemo(
    () => ({
      choose: (key: string): boolean => {
        const index =
          offered?.choices?.findIndex((choice, i) => keyOf(offered.test, choice, i) === key) ?? -1;
        const choice = offered?.choices?.[index];
        if (!offered || choice === undefined) return false;
        void fetcher.submit(
          { intent: "reading", token, look: offered.look, seen: choice },
          { method: "post" },
        );
        return true;
      },
      digit:
        offered?.choices === null
          ? (digit: string) => void window.dispatchEvent(new CustomEvent("airway:digit", { detail: digit }))
          : null,
      next: () => setSkip({ token, by: by + 1 }),
      strikeLast: () => void fetcher.submit({ intent: "strike-last" }, { method: "post" }),
      speed: (step: 1 | -1) => {
        const at = circuit.settings.indexOf(setting) + step;
        const moved = circuit.settings[Math.min(circuit.settings.length - 1, Math.max(0, at))];
        if (moved !== undefined) setChosen({ token, setting: moved });
      },
      help: () => setHelp(true),
    }),
    [offered, token, by, setting, circuit, fetcher],
  );
  useProbeKeys(lettersOn, keys);
  const cleared = useMemo(() => new Set(loaderData.cleared), [loaderData.cleared]);
  return (
    <div className="grid min-h-0 grow md:grid-cols-[minmax(0,1fr)_23rem]">
      <main id="main" className="flex min-w-0 flex-col gap-2.5 px-5 py-2.5 max-md:order-2">
        <div className="flex flex-wrap items-center gap-2">
          <ToggleGroup.Root
            type="single"
            value={setting}
            onValueChange={(value) => value && setChosen({ token, setting: value })}
            aria-label="Speed shown on the sheet"
            className="flex overflow-hidden rounded-card border-[1.5px] border-ink bg-card"
          >
            {circuit.settings.map((name) => (
              <ToggleGroup.Item
                key={name}
                value={name}
                className="grid min-h-12 min-w-[3.1rem] place-items-center border-l border-rule px-1 leading-none first:border-l-0 data-[state=on]:bg-ink data-[state=on]:text-paper"
              >
                <span className="font-bold">{name}</span>
                <span className="text-[0.8rem]">{loaderData.heard[name] ?? "·"}</span>
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          <button
            type="button"
            className="btn px-3 text-base"
            onClick={() => setKeyOn(!keyOn)}
            aria-pressed={keyOn}
          >
            Key <b>{keyOn ? "run" : "out"}</b>
          </button>
          <label className="flex items-center gap-2 text-base">
            <span className="text-soft">as if</span>
            <select
              className="field w-40"
              value={shownUnder}
              onChange={({ target }) => setUnder(target.value)}
            >
              <option value="healthy">healthy</option>
              {loaderData.under.map(({ fault, words }) => (
                <option key={fault} value={fault}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </div>
        <div className="sheet-card relative min-h-96 grow md:h-0">
          <div className="absolute top-1.5 right-1.5 z-10 flex gap-1">
            {zooms.map(({ title, size }) => (
              <button
                key={title}
                type="button"
                aria-pressed={zoom === size}
                onClick={() => setZoom(size)}
                className="min-h-8 rounded-card border border-[var(--edge)] bg-card px-2 text-base aria-pressed:bg-ink aria-pressed:text-paper"
              >
                {title}
              </button>
            ))}
          </div>
          <div
            ref={sheet}
            className="overflow-auto p-1 md:absolute md:inset-0"
            tabIndex={zoom === null ? undefined : 0}
          >
            {state && (
              <CircuitSheet
                circuit={circuit}
                layout={loaderData.layout}
                state={state}
                doubt={loaderData.doubt}
                cleared={cleared}
                probe={offered?.probe ?? null}
                fullVolts={loaderData.fullVolts}
                zoom={zoom}
              />
            )}
          </div>
        </div>
        <div className="flex items-start gap-2">
          <OwnReading token={token} {...loaderData.own} />
          <KeyHelp open={help} onOpenChange={setHelp} lettersOn={lettersOn} />
        </div>
      </main>
      <aside className="flex flex-col gap-3 overflow-y-auto border-rule bg-bench p-3.5 md:border-l">
        {offered ? (
          <NextLook
            offered={offered}
            token={token}
            lettersOn={lettersOn}
            position={by > 0 ? `, ${(by % looks.length) + 1} of ${looks.length}` : ""}
            onNext={keys.next}
          />
        ) : (
          <p className="sheet-card p-4">Nothing left to look at with a light and a meter.</p>
        )}
        <p className="text-base">
          {loaderData.verdict.state === "open" ? (
            <>
              <b>Not yet.</b> Likeliest: {loaderData.verdict.name}, {percent(loaderData.verdict.p)}.{" "}
            </>
          ) : (
            <>
              <b>{loaderData.verdict.state === "settled" ? "Settled" : "Best guess"}:</b>{" "}
              {loaderData.verdict.name}, {percent(loaderData.verdict.p)}.{" "}
            </>
          )}
          <Link to={`/jobs/${loaderData.id}/verdict`} className="font-semibold">
            Read the verdict
          </Link>
        </p>
        <Suspects
          suspects={loaderData.suspects}
          under={shownUnder}
          shownFaults={loaderData.under.map(({ fault }) => fault)}
          onShow={setUnder}
        />
        <Evidence lines={loaderData.evidence} conflicts={loaderData.conflicts} />
      </aside>
    </div>
  );
}

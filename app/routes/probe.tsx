import type { Look } from "@core/predict/reading";
import { lookText } from "@core/predict/readingText";
import { percent } from "@core/units/wording";
import { Suspense, useMemo, useState } from "react";
import { Await, data, Link, useRouteLoaderData } from "react-router";
import { AsIfTrue } from "../components/AsIfTrue";
import { BenchBar } from "../components/BenchBar";
import { type BenchSetup, isUsual, setupQuery } from "../components/benchSetup";
import { Evidence } from "../components/Evidence";
import { HandsBusy } from "../components/HandsBusy";
import { KeyHelp } from "../components/KeyHelp";
import { keyOf, NextLook } from "../components/NextLook";
import { OtherLooks } from "../components/OtherLooks";
import { OwnReading } from "../components/OwnReading";
import { type LitCell, PathBoard } from "../components/PathBoard";
import { PlanAhead } from "../components/PlanAhead";
import { ProbePanel } from "../components/ProbePanel";
import { type ProbeTarget, targetName } from "../components/probeTarget";
import { Suspects } from "../components/Suspects";
import { useAnswer } from "../components/useAnswer";
import { useProbeKeys } from "../components/useProbeKeys";
import { useSharedJob } from "../components/useSharedJob";
import { CircuitSheet } from "../drawing/CircuitSheet";
import { orderSheet, SheetTools } from "../drawing/SheetTools";
import { SheetView } from "../drawing/SheetView";
import type { SheetState } from "../drawing/sheetState";
import { takeEntry } from "../entries/takeEntry.server";
import { EntriesProvider, useEntries } from "../entries/useEntries";
import { jobViewAt } from "../jobView.server";
import { probeView } from "../probeView.server";
import type { loader as rootLoader } from "../root";
import type { Route } from "./+types/probe";
import type { loader as benchLoader } from "./bench";

export async function loader({ params }: Route.LoaderArgs) {
  return probeView(await jobViewAt(params.id));
}

/** Without scripts the forms are posted as they stand; with them they go through the queue. */
export async function action({ params, request }: Route.ActionArgs) {
  const taken = await takeEntry(params.id, await request.formData());
  return data(taken, { status: taken.problem === undefined ? 200 : 400 });
}

type Bench = NonNullable<ReturnType<typeof useRouteLoaderData<typeof benchLoader>>>;
type Probed = Route.ComponentProps["loaderData"];

export default function Probe({ loaderData }: Route.ComponentProps) {
  const bench = useRouteLoaderData<typeof benchLoader>("routes/bench");
  const { evidence } = loaderData;
  const standing = useMemo(() => evidence.filter(({ struck }) => !struck).map(({ id }) => id), [evidence]);
  if (!bench) return null;
  return (
    <EntriesProvider jobId={loaderData.id} token={loaderData.token} standing={standing}>
      <BenchPage bench={bench} job={loaderData} />
    </EntriesProvider>
  );
}

/** The set-up shown: as the look offered wants its speed, until it is changed by hand. */
function useBenchSetup(token: string, offeredSetting: string): [BenchSetup, (setup: BenchSetup) => void] {
  const [held, setHeld] = useState<{ token: string; setup: BenchSetup }>({
    token,
    setup: { key: "run", engine: false, setting: offeredSetting, unplugged: [], lampFor: null },
  });
  const setup = held.token === token ? held.setup : { ...held.setup, setting: offeredSetting };
  return [setup, (next) => setHeld({ token, setup: next })];
}

/** The sheet's states in a set-up, healthy first: at hand for the usual ones, asked for otherwise. */
function useStates(bench: Bench, job: Probed, setup: BenchSetup): readonly SheetState[] {
  const usual = isUsual(setup);
  const query = setupQuery(
    setup,
    job.under.map(({ fault }) => fault),
  );
  const { answer } = useAnswer<{ states: SheetState[] }>(usual ? null : `/jobs/${job.id}/states?${query}`);
  return useMemo(() => {
    const atHand = [...bench.healthy, ...job.states].filter(
      (state) => state.setting === setup.setting && state.key === setup.key,
    );
    return usual ? atHand : (answer?.states ?? atHand);
  }, [bench.healthy, job.states, setup.setting, setup.key, usual, answer]);
}

function BenchPage({ bench, job }: { bench: Bench; job: Probed }) {
  const { circuit, own } = bench;
  const { token } = job;
  const { enter, undo, waiting } = useEntries();
  const lettersOn = useRouteLoaderData<typeof rootLoader>("root")?.keys ?? true;
  // A look that waits to be stored is not offered again.
  const looks = useMemo(
    () => job.looks.filter(({ look }) => !waiting.some(({ fields }) => fields.look === look)),
    [job.looks, waiting],
  );
  const [skip, setSkip] = useState({ token, by: 0 });
  const by = skip.token === token ? skip.by : 0;
  const offered = looks[looks.length > 0 ? by % looks.length : 0];
  const [setup, setSetup] = useBenchSetup(token, offered?.setting ?? circuit.settings.at(-1) ?? "off");
  const [under, setUnder] = useState("healthy");
  const [help, setHelp] = useState(false);
  const [ahead, setAhead] = useState(false);
  const [board, setBoard] = useState(false);
  const [lit, setLit] = useState<LitCell | null>(null);
  const [target, setTarget] = useState<ProbeTarget | null>(null);
  const [other, setOther] = useState<string | null>(null);
  const [placingOther, setPlacingOther] = useState(false);
  const [flipped, setFlipped] = useState(false);
  const states = useStates(bench, job, setup);
  const shownUnder = states.some((state) => state.under === under) ? under : "healthy";
  const state = states.find((one) => one.under === shownUnder);
  const chosen = target ? targetName(target) : null;
  const focus = chosen ?? offered?.probe ?? null;
  const take = (next: ProbeTarget | null): void => {
    if (placingOther && next?.kind === "point") setOther(next.name);
    else {
      setTarget(next);
      setFlipped(false);
      setOther(null);
    }
    setPlacingOther(false);
  };
  const keys = useMemo(
    () => ({
      choose: (key: string): boolean => {
        const index =
          offered?.choices?.findIndex((choice, i) => keyOf(offered.test, choice, i) === key) ?? -1;
        const choice = offered?.choices?.[index];
        if (!offered || choice === undefined) return false;
        enter({ intent: "reading", form: "next", look: offered.look, seen: choice });
        return true;
      },
      digit:
        offered?.choices === null
          ? (digit: string) => void window.dispatchEvent(new CustomEvent("airway:digit", { detail: digit }))
          : null,
      next: () => setSkip({ token, by: by + 1 }),
      undo,
      speed: (step: 1 | -1) => {
        const at = circuit.settings.indexOf(setup.setting) + step;
        const moved = circuit.settings[Math.min(circuit.settings.length - 1, Math.max(0, at))];
        if (moved !== undefined) setSetup({ ...setup, setting: moved });
      },
      help: () => setHelp(true),
      flip: () => setFlipped((before) => !before),
      board: () => setBoard((before) => !before),
      sheet: orderSheet,
    }),
    [offered, token, by, setup, setSetup, circuit, enter, undo],
  );
  useProbeKeys(lettersOn, keys);
  useSharedJob(job.id, job.version);
  const cleared = useMemo(() => new Set(job.cleared), [job.cleared]);
  const healthyVolts = chosen === null ? undefined : states[0]?.point.volts[chosen];
  return (
    <div className="grid min-h-0 grow max-md:pb-[50vh] md:grid-cols-[minmax(0,1fr)_23rem] print:block">
      <main id="main" className="flex min-w-0 flex-col gap-2.5 px-5 py-2.5 max-md:px-3">
        <BenchBar settings={circuit.settings} heard={job.heard} setup={setup} onSetup={setSetup}>
          <SheetTools focus={focus} className="md:hidden" />
          <select
            aria-label="Show the sheet as if"
            className="field ml-auto w-36 text-base max-md:w-28"
            value={shownUnder}
            onChange={({ target: { value } }) => setUnder(value)}
          >
            <option value="healthy">as if healthy</option>
            {job.under.map(({ fault, words }) => (
              <option key={fault} value={fault}>
                as if {words}
              </option>
            ))}
          </select>
        </BenchBar>
        <div
          className={`sheet-card relative grow max-md:h-[30vh] max-md:shrink-0 md:h-0 print:h-[80vh] ${board ? "md:min-h-64" : "md:min-h-72"}`}
        >
          <Suspense fallback={<p className="p-4 text-soft">Drawing the circuit…</p>}>
            <Await
              resolve={bench.layout}
              errorElement={
                <p role="alert" className="p-4">
                  The circuit could not be drawn. Its points are all under “Own reading”.
                </p>
              }
            >
              {(layout) => (
                <SheetView layout={layout} fileName={`${circuit.id}-${setup.setting}`} focus={focus}>
                  {state && (
                    <CircuitSheet
                      circuit={circuit}
                      layout={layout}
                      state={state}
                      doubt={job.doubt}
                      cleared={cleared}
                      probe={offered?.probe ?? null}
                      fullVolts={bench.fullVolts}
                      lit={lit?.setting === setup.setting ? lit.part : null}
                      chosen={chosen}
                      other={other}
                      unplugged={setup.unplugged}
                      onTarget={take}
                    />
                  )}
                </SheetView>
              )}
            </Await>
          </Suspense>
        </div>
        <div className="flex flex-wrap items-start gap-2 print:hidden">
          <details
            className="sheet-card grow basis-32 open:basis-full"
            open={board}
            onToggle={({ currentTarget }) => setBoard(currentTarget.open)}
          >
            <summary className="flex min-h-11 cursor-pointer items-center px-3 font-semibold">
              Path board
            </summary>
            <div className="max-h-56 overflow-auto" tabIndex={board ? 0 : undefined}>
              <PathBoard
                settings={circuit.settings}
                heard={job.heard}
                lines={job.board}
                lit={lit}
                onLight={(cell) => {
                  setLit(cell);
                  setSetup({ ...setup, setting: cell.setting, key: "run" });
                }}
              />
            </div>
          </details>
          <OwnReading token={token} {...own} />
          <SheetTools focus={focus} className="max-md:hidden" />
          <KeyHelp open={help} onOpenChange={setHelp} lettersOn={lettersOn} />
        </div>
      </main>
      <aside className="flex flex-col gap-3 overflow-y-auto border-rule bg-bench p-3.5 md:border-l print:hidden">
        {target && (
          <ProbePanel
            key={chosen}
            jobId={job.id}
            circuit={circuit}
            target={target}
            setup={setup}
            onSetup={setSetup}
            token={token}
            under={job.under}
            healthyVolts={typeof healthyVolts === "number" ? healthyVolts : null}
            fullVolts={bench.fullVolts}
            flipped={flipped}
            onFlip={keys.flip}
            other={other}
            onPlaceOther={(waits) => {
              setPlacingOther(waits);
              if (!waits) setOther(null);
            }}
            placingOther={placingOther}
            words={own.words}
            onTarget={take}
            cautionsRead={job.cautionsRead}
          />
        )}
        {offered ? (
          <NextLook
            offered={offered}
            token={token}
            lettersOn={lettersOn}
            position={by > 0 ? `, ${(by % looks.length) + 1} of ${looks.length}` : ""}
            onNext={keys.next}
            hidden={target !== null}
          />
        ) : (
          <p className="sheet-card p-4">Nothing left to look at with a light and a meter.</p>
        )}
        <Standing verdict={job.verdict} jobId={job.id} />
        <OtherLooks looks={looks} shown={offered?.look ?? null} onTake={(at) => setSkip({ token, by: at })} />
        <details
          className="border-y border-rule"
          open={ahead}
          onToggle={({ currentTarget }) => setAhead(currentTarget.open)}
        >
          <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
            What comes after
          </summary>
          {ahead && <PlanAhead jobId={job.id} school={job.school} token={token} />}
        </details>
        {shownUnder !== "healthy" && (
          <AsIfTrue
            title={job.under.find(({ fault }) => fault === shownUnder)?.words ?? ""}
            lines={job.agreements[shownUnder] ?? []}
            onHealthy={() => setUnder("healthy")}
          />
        )}
        <Suspects
          suspects={job.suspects}
          under={shownUnder}
          shownFaults={job.under.map(({ fault }) => fault)}
          onShow={setUnder}
        />
        <Evidence jobId={job.id} lines={job.evidence} notes={job.notes} conflicts={job.conflicts} />
        <HandsBusy say={offered ? lookText(JSON.parse(offered.look) as Look) : ""} />
      </aside>
    </div>
  );
}

/** How the verdict stands, and the way to it. */
function Standing({ verdict, jobId }: { verdict: Probed["verdict"]; jobId: number }) {
  const { state, name, p } = verdict;
  return (
    <p className="text-base">
      <b>{state === "open" ? "Not yet." : state === "settled" ? "Settled:" : "Best guess:"}</b>{" "}
      {state === "open" && "Likeliest: "}
      {name}, {percent(p)}.{" "}
      <Link to={`/jobs/${jobId}/verdict`} className="font-semibold">
        Read the verdict
      </Link>
    </p>
  );
}

import type { Test } from "@core/predict/reading";
import { percent } from "@core/units/wording";
import { testText } from "@words/tests/testText";
import { memo, useCallback, useMemo, useState } from "react";
import { Link } from "react-router";
import { useEntries, useEntryAnswers } from "../entries/useEntries";
import { type LitCell, PathBoard } from "../sheet/PathBoard";
import { type ProbeTarget, targetName } from "../sheet/probeTarget";
import { SetupBar } from "../sheet/SetupBar";
import { orderSheet, SheetTools } from "../sheet/SheetTools";
import { LaidOutSheet } from "../sheet/SheetView";
import { usePainted } from "../ui/afterPaint";
import { Fold } from "../ui/Fold";
import { AsIfTrue } from "./AsIfTrue";
import { OwnReading } from "./EnterTest";
import { Evidence } from "./Evidence";
import { HandsBusy } from "./HandsBusy";
import { KeyHelp } from "./KeyHelp";
import { Lookahead } from "./Lookahead";
import { keyOf, NextTest } from "./NextTest";
import { OtherTests } from "./OtherTests";
import { ProbePanel } from "./ProbePanel";
import type { Probed, ProbeSheet } from "./probeData";
import { Suspects } from "./Suspects";
import { useAnswer } from "./useAnswer";
import { useProbeKeys } from "./useProbeKeys";
import { useShownSetup, useShownState } from "./useShownSetup";

const noPath: ReadonlySet<string> = new Set();

interface BenchPageProps {
  readonly bench: ProbeSheet;
  readonly job: Probed;
  readonly lettersOn: boolean;
}

/** The page itself; the router's own comings and goings do not draw it anew. */
export const ProbePage = memo(function ProbePage({ bench, job, lettersOn }: BenchPageProps) {
  const { circuit, own } = bench;
  const { token } = job;
  const { enter, undo } = useEntries();
  const away = useEntryAnswers(job.id);
  // A look that waits to be stored is not offered again.
  const tests = useMemo(
    () => (away.length === 0 ? job.looks : job.looks.filter(({ look: test }) => !away.includes(test))),
    [job.looks, away],
  );
  const [skip, setSkip] = useState({ token, by: 0 });
  const by = skip.token === token ? skip.by : 0;
  const offered = tests[tests.length > 0 ? by % tests.length : 0];
  const [setup, setSetup] = useShownSetup(token, offered?.setting ?? circuit.settings.at(-1) ?? "off");
  const [under, setUnder] = useState("healthy");
  const [help, setHelp] = useState(false);
  const [board, setBoard] = useState(false);
  const [lit, setLit] = useState<LitCell | null>(null);
  const [target, setTarget] = useState<ProbeTarget | null>(null);
  const [other, setOther] = useState<string | null>(null);
  const [placingOther, setPlacingOther] = useState(false);
  const [flipped, setFlipped] = useState(false);
  const shownUnder = job.under.some(({ fault }) => fault === under) ? under : "healthy";
  const { healthy, shown: state } = useShownState(bench, job.id, setup, shownUnder);
  const chosen = target ? targetName(target) : null;
  const shownLit = lit?.setting === setup.setting ? lit : null;
  const { answer: path, current: pathHere } = useAnswer<{ path: string[] }>(
    shownLit
      ? `/jobs/${job.id}/path?${new URLSearchParams({ setting: shownLit.setting, piece: shownLit.id })}`
      : null,
  );
  const litPath = useMemo(
    () => (shownLit ? new Set([shownLit.part, ...((pathHere && path?.path) || [])]) : noPath),
    [shownLit, path, pathHere],
  );
  const focus = chosen ?? offered?.probe ?? null;
  const take = useCallback(
    (next: ProbeTarget | null): void => {
      if (placingOther && next?.kind === "point") setOther(next.name);
      else {
        setTarget(next);
        setFlipped(false);
        setOther(null);
      }
      setPlacingOther(false);
    },
    [placingOther],
  );
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
  const cleared = useMemo(() => new Set(job.cleared), [job.cleared]);
  const sheet = useMemo(
    () =>
      state
        ? {
            circuit,
            state,
            doubt: job.doubt,
            cleared,
            probe: offered?.probe ?? null,
            fullVolts: bench.fullVolts,
            lit: litPath,
            chosen,
            other,
            unplugged: setup.unplugged,
            onTarget: take,
          }
        : null,
    [circuit, state, job.doubt, cleared, offered, bench, litPath, chosen, other, setup.unplugged, take],
  );
  // Suspects and the next look are shown first; drawing, board and evidence follow, and give way to the next key.
  const later = usePainted(useMemo(() => ({ sheet, focus, token, job }), [sheet, focus, token, job]));
  const { evidence, notes, conflicts, repairs } = later.job;
  const lightCell = useCallback(
    (cell: LitCell): void => {
      setLit(cell);
      setSetup({ ...setup, setting: cell.setting, key: "run" });
    },
    [setup, setSetup],
  );
  const laterUnder = later.job.under;
  const asIf = useMemo(
    () => (
      <select
        aria-label="Show the sheet as if"
        className="field ml-auto w-36 text-base max-md:w-28"
        value={shownUnder}
        onChange={({ target: { value } }) => setUnder(value)}
      >
        <option value="healthy">as if healthy</option>
        {laterUnder.map(({ fault, words }) => (
          <option key={fault} value={fault}>
            as if {words}
          </option>
        ))}
      </select>
    ),
    [shownUnder, laterUnder],
  );
  const healthyVolts = chosen === null ? undefined : healthy?.point.volts[chosen];
  return (
    <div className="grid min-h-0 grow max-md:pb-[50vh] md:grid-cols-[minmax(0,1fr)_23rem] md:grid-rows-[minmax(0,1fr)] print:block">
      <main
        id="main"
        className="main-pane flex min-w-0 flex-col gap-2.5 px-5 py-2.5 max-md:px-3 md:overflow-y-auto"
      >
        <SetupBar settings={circuit.settings} heard={job.heard} setup={setup} onSetup={setSetup}>
          {asIf}
        </SetupBar>
        <div
          className={`sheet-card sheet-pane relative grow max-md:h-[30vh] max-md:shrink-0 md:h-0 print:h-[80vh] ${board ? "md:min-h-64" : "md:min-h-72"}`}
        >
          <LaidOutSheet
            layout={bench.layout}
            fileName={`${circuit.id}-${setup.setting}`}
            focus={later.focus}
            sheet={later.sheet}
          />
        </div>
        <div className="flex flex-wrap items-start gap-2 print:hidden">
          <Fold
            title="Path board"
            className="sheet-card grow basis-32 px-3 open:basis-full"
            open={board}
            onOpen={setBoard}
          >
            {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1) */}
            <div className="-mx-3 max-h-56 overflow-auto" tabIndex={0}>
              <PathBoard
                settings={circuit.settings}
                heard={job.heard}
                lines={later.job.board}
                lit={lit}
                onLight={lightCell}
              />
            </div>
          </Fold>
          <OwnReading token={later.token} {...own} />
          <SheetTools focus={later.focus} />
          <KeyHelp open={help} onOpenChange={setHelp} lettersOn={lettersOn} />
        </div>
      </main>
      <aside className="relative min-w-0 border-rule bg-bench md:border-l print:hidden">
        <div className="aside-pane flex flex-col gap-3 overflow-y-auto p-3.5">
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
              onTarget={take}
              cautionsRead={job.cautionsRead}
            />
          )}
          {offered ? (
            <NextTest
              offered={offered}
              token={token}
              lettersOn={lettersOn}
              position={by > 0 ? `, ${(by % tests.length) + 1} of ${tests.length}` : ""}
              onNext={keys.next}
              hidden={target !== null}
            />
          ) : (
            <p className="sheet-card p-4">Nothing left to look at with a light and a meter.</p>
          )}
          <Standing verdict={job.verdict} jobId={job.id} />
          <OtherTests
            looks={tests}
            shown={offered?.look ?? null}
            onTake={(at) => setSkip({ token, by: at })}
          />
          <Fold title="What comes after" className="border-y border-rule">
            <Lookahead jobId={job.id} school={job.school} token={token} />
          </Fold>
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
          <Evidence jobId={job.id} lines={evidence} notes={notes} conflicts={conflicts} repairs={repairs} />
          <HandsBusy say={offered ? testText(JSON.parse(offered.look) as Test) : ""} />
        </div>
      </aside>
    </div>
  );
});

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

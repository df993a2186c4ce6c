import type { Test } from "@core/predict/reading";
import { testText } from "@words/tests/testText";
import { memo, useMemo, useState } from "react";
import { type LitCell, PathBoard } from "../sheet/PathBoard";
import { targetName } from "../sheet/probeTarget";
import { SetupBar } from "../sheet/SetupBar";
import { SheetTools } from "../sheet/SheetTools";
import { LaidOutSheet } from "../sheet/SheetView";
import type { SheetProps } from "../sheet/sheetProps";
import type { ShownSetup } from "../sheet/shownSetup";
import { usePainted } from "../ui/afterPaint";
import { Fold } from "../ui/Fold";
import { AsIfTrue } from "./AsIfTrue";
import { AtAGlance } from "./AtAGlance";
import { OwnReading } from "./EnterTest";
import { Evidence } from "./Evidence";
import { HandsBusy } from "./HandsBusy";
import { KeyHelp } from "./KeyHelp";
import { Lookahead } from "./Lookahead";
import { NextTest } from "./NextTest";
import { NowProvider } from "./NowState";
import { OtherTests } from "./OtherTests";
import { ProbePanel } from "./ProbePanel";
import type { Probed, ProbeSheet } from "./probeData";
import { Suspects } from "./Suspects";
import { useLitPath } from "./state/useLitPath";
import { type Offered, useOffered } from "./state/useOffered";
import { useProbeActions } from "./state/useProbeActions";
import { useProbeKeys } from "./state/useProbeKeys";
import { type ProbeInHand, useProbeTarget } from "./state/useProbeTarget";
import { useShownSetup, useShownState } from "./state/useShownSetup";

interface ProbePageProps {
  readonly bench: ProbeSheet;
  readonly job: Probed;
  readonly lettersOn: boolean;
  /** True to show whole visits, false for one test at a time. */
  readonly planned: boolean;
}

/** The page itself; changes of the router's state do not render it again. */
export const ProbePage = memo(function ProbePage({ bench, job, lettersOn, planned }: ProbePageProps) {
  const { circuit } = bench;
  const { token } = job;
  const next = useOffered(job);
  const { offered } = next;
  const [setup, setSetup] = useShownSetup(token, offered?.setting ?? circuit.settings.at(-1) ?? "off");
  const probe = useProbeTarget();
  const { target, other, take } = probe;
  const [under, setUnder] = useState("healthy");
  const [help, setHelp] = useState(false);
  const [board, setBoard] = useState(false);
  const { lit, path, light } = useLitPath(job.id, setup, setSetup);
  const shownUnder = job.under.some(({ fault }) => fault === under) ? under : "healthy";
  const { healthy, shown: state } = useShownState(bench, job.id, setup, shownUnder);
  const chosen = target ? targetName(target) : null;
  const focus = chosen ?? offered?.probe ?? null;
  const actions = useProbeActions({
    ...next,
    settings: circuit.settings,
    setup,
    setSetup,
    onHelp: () => setHelp(true),
    onFlip: probe.flip,
    onBoard: () => setBoard((before) => !before),
  });
  useProbeKeys(lettersOn, actions);
  const cleared = useMemo(() => new Set(job.cleared), [job.cleared]);
  const sheet = useMemo(() => {
    if (!state) return null;
    const { fullVolts } = bench;
    const { unplugged } = setup;
    const seen = { circuit, state, doubt: job.doubt, cleared, probe: offered?.probe ?? null, fullVolts };
    return { ...seen, lit: path, chosen, other, unplugged, onTarget: take };
  }, [circuit, state, job.doubt, cleared, offered, bench, path, chosen, other, setup, take]);
  // Suspects and the next test render first; drawing, board and evidence follow, and yield to the next key.
  const later = usePainted(useMemo(() => ({ sheet, focus, token, job }), [sheet, focus, token, job]));
  const seen = { bench, job, setup, setSetup, later, under: shownUnder, onUnder: setUnder };
  return (
    <NowProvider varies={job.varies}>
      <div className="grid min-h-0 grow tall-phone:pb-[50vh] md:grid-cols-[minmax(0,1fr)_23rem] md:grid-rows-[minmax(0,1fr)] print:block">
        <ProbeMain {...seen} board={board} onBoard={setBoard} lit={lit} onLight={light}>
          <KeyHelp open={help} onOpenChange={setHelp} lettersOn={lettersOn} />
        </ProbeMain>
        <ProbeSide
          {...seen}
          next={next}
          onNext={actions.next}
          probe={probe}
          healthy={healthy}
          lettersOn={lettersOn}
          planned={planned}
        />
      </div>
    </NowProvider>
  );
});

/** Data that both halves of the page show. */
interface Shown {
  readonly bench: ProbeSheet;
  readonly job: Probed;
  readonly setup: ShownSetup;
  readonly setSetup: (setup: ShownSetup) => void;
  /** The same as it was when the page was last painted. */
  readonly later: {
    readonly sheet: Omit<SheetProps, "layout"> | null;
    readonly focus: string | null;
    readonly token: string;
    readonly job: Probed;
  };
  /** The suspect the drawing assumes, or `healthy`. */
  readonly under: string;
  readonly onUnder: (fault: string) => void;
}

interface ProbeMainProps extends Shown {
  readonly board: boolean;
  readonly onBoard: (open: boolean) => void;
  readonly lit: LitCell | null;
  readonly onLight: (cell: LitCell) => void;
  readonly children: React.ReactNode;
}

/** The vehicle: its set-up, its drawing, and what folds out below it. */
function ProbeMain(props: ProbeMainProps) {
  const { bench, job, setup, setSetup, later, under, onUnder, board, onBoard, lit, onLight } = props;
  const { circuit, own } = bench;
  const laterUnder = later.job.under;
  const asIf = useMemo(
    () => <AsIfSelect under={under} onUnder={onUnder} suspects={laterUnder} />,
    [under, onUnder, laterUnder],
  );
  return (
    <main
      id="main"
      className="main-pane flex min-w-0 flex-col gap-2.5 px-5 py-2.5 max-md:px-3 md:overflow-y-auto"
    >
      {job.makeSafe && (
        <section aria-labelledby="safe" className="border-l-4 border-danger pl-3 text-base print:hidden">
          <h2 id="safe" className="inline font-bold">
            Make it safe: the key does not stop this blower.
          </h2>{" "}
          {job.makeSafe}
        </section>
      )}
      <SetupBar settings={circuit.settings} heard={job.heard} setup={setup} onSetup={setSetup}>
        {asIf}
      </SetupBar>
      <div
        className={`sheet-card sheet-pane relative grow max-md:h-[26vh] max-md:shrink-0 md:h-0 print:h-[80vh] ${board ? "md:min-h-64" : "md:min-h-72"}`}
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
          className="sheet-card grow basis-24 px-2 open:basis-full"
          open={board}
          onOpen={onBoard}
        >
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1) */}
          <div className="-mx-2 max-h-56 overflow-auto" tabIndex={0}>
            <PathBoard
              settings={circuit.settings}
              heard={job.heard}
              lines={later.job.board}
              lit={lit}
              onLight={onLight}
            />
          </div>
        </Fold>
        <OwnReading token={later.token} {...own} />
        <SheetTools focus={later.focus} />
        {props.children}
      </div>
    </main>
  );
}

interface AsIfSelectProps extends Pick<Shown, "under" | "onUnder"> {
  readonly suspects: Probed["under"];
}

/** Which suspect the drawing assumes. */
const AsIfSelect = ({ under, onUnder, suspects }: AsIfSelectProps) => (
  <select
    aria-label="Show the drawing as if"
    className="field ml-auto w-36 text-base max-md:w-28"
    value={under}
    onChange={({ target: { value } }) => onUnder(value)}
  >
    <option value="healthy">as if healthy</option>
    {suspects.map(({ fault, words }) => (
      <option key={fault} value={fault}>
        as if {words}
      </option>
    ))}
  </select>
);

interface ProbeSideProps extends Shown {
  readonly next: Offered;
  readonly onNext: () => void;
  readonly probe: ProbeInHand;
  readonly healthy: ReturnType<typeof useShownState>["healthy"];
  readonly lettersOn: boolean;
  readonly planned: boolean;
}

/** What is under the probe, the next test, the suspects and the evidence. */
function ProbeSide(props: ProbeSideProps) {
  const { job, later, under, onUnder, next, probe, onNext, lettersOn } = props;
  const { offered, tests } = next;
  const { evidence, notes, conflicts, repairs, earlier } = later.job;
  return (
    <aside className="relative min-w-0 short-phone:order-first border-rule bg-bench md:border-l print:hidden">
      <div className="aside-pane flex flex-col gap-3 overflow-y-auto p-3.5 md:scroll-pb-40">
        <UnderTheProbe {...props} />
        {offered ? (
          <NextTest
            offered={offered}
            tests={tests}
            planned={props.planned}
            onShow={next.show}
            token={job.token}
            lettersOn={lettersOn}
            position={next.position}
            onNext={onNext}
            hidden={probe.target !== null}
          />
        ) : (
          <p className="sheet-card p-4">No test left that could change the verdict.</p>
        )}
        <AtAGlance jobId={job.id} verdict={job.verdict} suspects={job.suspects} evidence={job.evidence} />
        <OtherTests looks={tests} shown={offered?.look ?? null} onTake={next.show} />
        <Fold title="What could come next" className="border-y border-rule">
          <Lookahead jobId={job.id} school={job.school} token={job.token} />
        </Fold>
        {under !== "healthy" && (
          <AsIfTrue
            title={job.under.find(({ fault }) => fault === under)?.words ?? ""}
            lines={job.agreements[under] ?? []}
            onHealthy={() => onUnder("healthy")}
          />
        )}
        <Suspects
          suspects={job.suspects}
          under={under}
          shownFaults={job.under.map(({ fault }) => fault)}
          onShow={onUnder}
        />
        <Evidence
          jobId={job.id}
          lines={evidence}
          notes={notes}
          conflicts={conflicts}
          repairs={repairs}
          earlier={earlier}
        />
        <HandsBusy say={offered ? testText(props.bench.circuit, JSON.parse(offered.look) as Test) : ""} />
      </div>
    </aside>
  );
}

/** What was tapped on the drawing, if anything. */
function UnderTheProbe({ bench, job, setup, setSetup, probe, healthy }: ProbeSideProps) {
  const { target } = probe;
  if (!target) return null;
  const chosen = targetName(target);
  const volts = healthy?.point.volts[chosen];
  return (
    <ProbePanel
      key={chosen}
      jobId={job.id}
      circuit={bench.circuit}
      target={target}
      setup={setup}
      onSetup={setSetup}
      token={job.token}
      under={job.under}
      healthyVolts={typeof volts === "number" ? volts : null}
      fullVolts={bench.fullVolts}
      flipped={probe.flipped}
      onFlip={probe.flip}
      other={probe.other}
      onPlaceOther={probe.placeOther}
      placingOther={probe.placingOther}
      onTarget={probe.take}
      cautionsRead={job.cautionsRead}
    />
  );
}

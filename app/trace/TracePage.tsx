import type { CircuitEdit } from "@core/circuit/circuitEdit";
import { currentPath } from "@core/diagnose/explain/currentPath";
import { buildNetlist } from "@core/solve/buildNetlist";
import type { Dispatch, SetStateAction } from "react";
import { useCallback, useMemo, useState } from "react";
import { Form, Link } from "react-router";
import { type LitCell, PathBoard } from "../sheet/PathBoard";
import type { ShownSetup } from "../sheet/shownSetup";
import { firstSetup, HealthySheet, settingOf } from "../shelf/HealthySheet";
import { brokenIn, Findings, Refusal } from "../shelf/ImportForm";
import { Fold } from "../ui/Fold";
import { CircuitTables } from "./CircuitTables";
import { DraftSteps } from "./DraftSteps";
import { OntoShelf } from "./OntoShelf";
import { SpeedCheck } from "./SpeedCheck";
import { TraceQuestions } from "./TraceQuestions";
import type { TracedDraft } from "./tracedDraft.server";
import { useSteps } from "./useSteps";

const noHeard = {};

interface TraceBenchProps {
  readonly draft: TracedDraft;
  readonly refused: { readonly of: string; readonly problems: readonly string[] } | undefined;
}

/** A circuit being traced: questions beside the resulting drawing, its findings, and its tables. */
export function TracePage({ draft, refused }: TraceBenchProps) {
  const { circuit, name, answers, asked, dropped, problems, family, shelf } = draft;
  const [setup, setSetup] = useState(firstSetup);
  const setting = settingOf(circuit, setup);
  const { send, waiting, away, problems: refusals } = useSteps(draft.id);
  const edit = useCallback(
    (change: CircuitEdit) => send({ intent: "edit", edit: JSON.stringify(change) }),
    [send],
  );
  const [lit, setLit] = useState<LitCell | null>(null);
  const shownLit = lit?.setting === setting ? lit : null;
  const litPath = useMemo(() => {
    const netlist = shownLit && buildNetlist(circuit, { lumpWires: true });
    return netlist?.ok
      ? new Set(currentPath(netlist.value, shownLit?.setting ?? "", shownLit?.id ?? ""))
      : null;
  }, [circuit, shownLit]);
  const light = useCallback((cell: LitCell): void => {
    setLit(cell);
    setSetup((before) => ({ ...before, key: "run", setting: cell.setting }));
  }, []);
  return (
    <main id="main" className="mx-auto grid w-full max-w-[100rem] min-w-0 grow content-start gap-3 p-4">
      <TraceHead name={name} family={family} draft={draft} waiting={waiting} away={away} send={send} />
      <WiringSeen circuit={circuit} edit={edit} />
      {dropped.length > 0 && (
        <div role="alert" className="border-l-4 border-[var(--go)] pl-3 text-base">
          <p>These changes no longer fit the newer answers. Undo brings them back:</p>
          <ul className="list-disc pl-5">
            {dropped.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_fit-content(42rem)] lg:grid-rows-[auto_1fr]">
        <CircuitSoFar draft={draft} setup={setup} setSetup={setSetup} litPath={litPath} problems={problems} />
        <QuestionsAndTables
          refusals={refusals}
          circuit={circuit}
          edit={edit}
          answers={answers}
          asked={asked}
          refused={refused}
        />
        <LooksRight draft={draft} circuit={circuit} shownLit={shownLit} light={light} />
      </div>
      <OntoShelf
        name={name}
        shelf={shelf}
        broken={brokenIn(draft.findings)}
        waiting={waiting > 0}
        refused={refused?.of === "store" ? refused.problems : null}
      />
    </main>
  );
}

interface WiringSeenProps {
  readonly circuit: TracedDraft["circuit"];
  readonly edit: (change: CircuitEdit) => void;
}

/** On a circuit whose wiring nobody has seen: what follows from that, and the way to say that it was compared. */
const WiringSeen = ({ circuit, edit }: WiringSeenProps) =>
  circuit.wiring === "assumed" && (
    <div
      role="status"
      className="flex flex-wrap items-center gap-3 border-l-4 border-[var(--go)] pl-3 text-base"
    >
      <p>
        Some of the wiring is assumed, so no verdict on this circuit is confirmed. Compare every part and wire
        with the diagram first.
      </p>
      <button type="button" className="btn" onClick={() => edit({ do: "wiring", seen: true })}>
        The wiring is as the diagram shows it
      </button>
    </div>
  );

/** Replaces all wires at once, from a typed or exported list. */
function WireListForm({ refused }: { refused: readonly string[] | null }) {
  return (
    <details className="text-base" open={refused !== null}>
      <summary className="flex min-h-11 cursor-pointer items-center underline">Paste a wire list</summary>
      <Form method="post" className="grid gap-2">
        <label className="grid gap-1 text-soft">
          Columns wire, from, to, colour, mm2, metres, separated by commas, semicolons or tabs. The list
          replaces all wires above
          <textarea
            name="text"
            required
            rows={6}
            spellCheck={false}
            className="field figures w-full text-ink"
          />
        </label>
        {refused && <Refusal problems={refused} />}
        <button type="submit" name="intent" value="wires" className="btn justify-self-start">
          Replace the wires
        </button>
      </Form>
    </details>
  );
}

interface TraceHeadProps {
  readonly name: TraceBenchProps["draft"]["name"];
  readonly family: TraceBenchProps["draft"]["family"];
  readonly draft: TraceBenchProps["draft"];
  readonly waiting: number;
  readonly away: boolean;
  readonly send: (fields: Record<string, string>) => void;
}

/** The circuit's name and the draft's actions. */
function TraceHead({ name, family, draft, waiting, away, send }: TraceHeadProps) {
  return (
    <header className="flex flex-wrap items-end justify-between gap-3">
      <div>
        <p className="text-base">
          <Link to="/trace" className="underline">
            Trace a circuit
          </Link>
        </p>
        <h1 className="text-2xl font-bold">{name.title}</h1>
        <p className="text-base text-soft" role="status">
          {family}
        </p>
      </div>
      <DraftSteps undo={draft.undo} redo={draft.redo} waiting={waiting} away={away} send={send} />
    </header>
  );
}

interface CircuitSoFarProps {
  readonly draft: TraceBenchProps["draft"];
  readonly setup: ShownSetup;
  readonly setSetup: Dispatch<SetStateAction<ShownSetup>>;
  readonly litPath: Set<string> | null;
  readonly problems: TraceBenchProps["draft"]["problems"];
}

/** The drawing of the answers so far. */
function CircuitSoFar({ draft, setup, setSetup, litPath, problems }: CircuitSoFarProps) {
  return (
    <section aria-label="The circuit so far" className="grid min-w-0 content-start gap-2 lg:sticky lg:top-2">
      {draft.sheet ? (
        <HealthySheet
          view={draft.sheet}
          setup={setup}
          onSetup={setSetup}
          height="h-[27rem] max-md:h-[45vh]"
          lit={litPath}
        />
      ) : (
        <ul role="alert" className="sheet-card list-disc p-6">
          {problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface QuestionsAndTablesProps {
  readonly refusals: string[];
  readonly circuit: TraceBenchProps["draft"]["circuit"];
  readonly edit: (change: CircuitEdit) => void;
  readonly answers: TraceBenchProps["draft"]["answers"];
  readonly asked: TraceBenchProps["draft"]["asked"];
  readonly refused: TraceBenchProps["refused"];
}

/** The questions, and the circuit as tables. */
function QuestionsAndTables({ refusals, circuit, edit, answers, asked, refused }: QuestionsAndTablesProps) {
  return (
    <aside
      aria-label="Questions and tables"
      className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3 lg:row-span-2 lg:min-w-[26rem]"
    >
      {refusals.length > 0 && <Refusal problems={refusals} />}
      <CircuitTables
        circuit={circuit}
        onEdit={edit}
        questions={answers && <TraceQuestions answers={answers} asked={asked} refused={refused} />}
      >
        <WireListForm refused={refused?.of === "wires" ? refused.problems : null} />
      </CircuitTables>
    </aside>
  );
}

interface LooksRightProps {
  readonly draft: TraceBenchProps["draft"];
  readonly circuit: TraceBenchProps["draft"]["circuit"];
  readonly shownLit: LitCell | null;
  readonly light: (cell: LitCell) => void;
}

/** Checks and the path board of the answers so far. */
function LooksRight({ draft, circuit, shownLit, light }: LooksRightProps) {
  return (
    <div className="grid content-start gap-3">
      <SpeedCheck motors={draft.motors} />
      <section aria-labelledby="checks">
        <h2 id="checks" className="text-lg font-bold">
          Plausibility check
        </h2>
        <Findings findings={draft.findings} />
        <Fold title="Path board" className="sheet-card mt-2 px-3">
          <div className="max-h-72 overflow-auto">
            <PathBoard
              settings={circuit.settings}
              heard={noHeard}
              lines={draft.board}
              lit={shownLit}
              onLight={light}
            />
          </div>
        </Fold>
      </section>
    </div>
  );
}

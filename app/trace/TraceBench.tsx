import type { CircuitEdit } from "@core/circuit/circuitEdit";
import { currentPath } from "@core/diagnose/currentPath";
import { buildNetlist } from "@core/solve/netlist";
import { ampsText, percent, voltsText } from "@core/units/wording";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Form, Link, useFetcher, useNavigation } from "react-router";
import { BenchBar } from "../components/BenchBar";
import type { BenchSetup } from "../components/benchSetup";
import { Fold } from "../components/Fold";
import { type LitCell, PathBoard } from "../components/PathBoard";
import { SheetTools } from "../drawing/SheetTools";
import { HealthySheet } from "../shelf/HealthySheet";
import { Findings, Refusal } from "../shelf/ImportForm";
import { CircuitTables } from "./CircuitTables";
import { TraceQuestions } from "./TraceQuestions";
import type { TracedDraft } from "./tracedDraft";

const noHeard = {};

interface TraceBenchProps {
  readonly draft: TracedDraft;
  readonly refused: { readonly of: string; readonly problems: readonly string[] } | undefined;
}

/** A circuit in the making: questions beside the drawing they make, what the circuit says of itself, and its tables. */
export function TraceBench({ draft, refused }: TraceBenchProps) {
  const { circuit, name, answers, asked, dropped, problems, family, shelf } = draft;
  const [setup, setSetup] = useState<BenchSetup>({
    key: "run",
    engine: false,
    setting: "",
    unplugged: [],
    lampFor: null,
  });
  const setting = circuit.settings.includes(setup.setting)
    ? setup.setting
    : (circuit.settings.at(-1) ?? "off");
  const state = draft.healthy.find((own) => own.setting === setting && own.key === setup.key);
  const { send, waiting, problems: refusals } = useSteps();
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
        <Steps undo={draft.undo} redo={draft.redo} waiting={waiting} send={send} />
      </header>
      {dropped.length > 0 && (
        <div role="alert" className="border-l-4 border-[var(--go)] pl-3 text-base">
          <p>These changes no longer fit what was answered since; undo brings them back:</p>
          <ul className="list-disc pl-5">
            {dropped.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_fit-content(46rem)] lg:grid-rows-[auto_1fr]">
        <section
          aria-label="The circuit so far"
          className="grid min-w-0 content-start gap-2 lg:sticky lg:top-2"
        >
          <div className="flex flex-wrap items-center justify-between gap-2">
            <BenchBar
              settings={circuit.settings}
              heard={noHeard}
              setup={{ ...setup, setting }}
              onSetup={setSetup}
              engineToo={false}
            >
              {null}
            </BenchBar>
            <SheetTools focus={null} />
          </div>
          <div className="sheet-card sheet-pane relative h-[27rem] max-md:h-[45vh]">
            {draft.layout ? (
              <HealthySheet
                circuit={circuit}
                lit={litPath}
                layout={draft.layout}
                state={state}
                fullVolts={draft.fullVolts}
              />
            ) : (
              <ul role="alert" className="list-disc p-6">
                {problems.map((problem) => (
                  <li key={problem}>{problem}</li>
                ))}
              </ul>
            )}
          </div>
        </section>
        <aside
          aria-label="Questions and tables"
          className="grid min-w-0 content-start gap-3 lg:row-span-2 lg:min-w-[26rem]"
        >
          {refusals && <Refusal problems={refusals} />}
          <CircuitTables
            circuit={circuit}
            onEdit={edit}
            questions={answers && <TraceQuestions answers={answers} asked={asked} refused={refused} />}
          >
            <WireListForm refused={refused?.of === "wires" ? refused.problems : null} />
          </CircuitTables>
        </aside>
        <div className="grid content-start gap-3">
          <Speeds motors={draft.motors} />
          <section aria-labelledby="checks">
            <h2 id="checks" className="text-lg font-bold">
              Does it look right?
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
      </div>
      <Store
        name={name}
        shelf={shelf}
        waiting={waiting > 0}
        refused={refused?.of === "store" ? refused.problems : null}
      />
    </main>
  );
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

/**
 * Sends steps one after another: one sent while another is on its way would put an end to that one, and an undo
 * would take back the wrong one. Leaving the page with some of them unsent warns.
 */
function useSteps() {
  const { submit, data } = useFetcher<{ problems: readonly string[] } | undefined>();
  const [waiting, setWaiting] = useState(0);
  const last = useRef(Promise.resolve());
  const send = useCallback(
    (fields: Record<string, string>): void => {
      setWaiting((count) => count + 1);
      last.current = last.current
        .then(() => submit(fields, { method: "post" }))
        .finally(() => setWaiting((count) => count - 1));
    },
    [submit],
  );
  useEffect(() => {
    if (waiting === 0) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [waiting]);
  return { send, waiting, problems: data?.problems };
}

interface StepsProps {
  readonly undo: boolean;
  readonly redo: boolean;
  readonly waiting: number;
  readonly send: (fields: Record<string, string>) => void;
}

/** One step back, one step on; by Ctrl+Z and Ctrl+Shift+Z too, where no text is being typed. */
function Steps({ undo, redo, waiting, send }: StepsProps) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z" || typing(event.target))
        return;
      event.preventDefault();
      send({ intent: event.shiftKey ? "redo" : "undo" });
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [send]);
  return (
    <Form
      method="post"
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const { submitter } = event.nativeEvent as SubmitEvent;
        if (submitter instanceof HTMLButtonElement) send({ intent: submitter.value });
      }}
    >
      <span role="status" className="text-base text-soft" data-unstored={waiting}>
        {waiting > 0 ? "storing…" : "all stored"}
      </span>
      <button
        type="submit"
        name="intent"
        value="undo"
        className="btn"
        disabled={!undo}
        aria-keyshortcuts="Control+Z"
      >
        Undo
      </button>
      <button
        type="submit"
        name="intent"
        value="redo"
        className="btn"
        disabled={!redo}
        aria-keyshortcuts="Control+Shift+Z"
      >
        Redo
      </button>
    </Form>
  );
}

/** What each speed would give at the motor of a healthy vehicle: whether that is sensible shows at a glance. */
function Speeds({ motors }: Pick<TracedDraft, "motors">) {
  return motors.map(({ motor, speeds }) => (
    <section key={motor} className="sheet-card py-2" aria-label={`What ${motor} would get`}>
      <h2 className="px-3 pb-1 text-base font-semibold">What a healthy {motor} would get. Sensible?</h2>
      <table className="w-full text-base" data-speeds={motor}>
        <thead>
          <tr className="text-soft">
            <th scope="col" className="pl-3 text-left font-normal">
              Speed
            </th>
            <th scope="col" className="text-right font-normal">
              Volts
            </th>
            <th scope="col" className="text-right font-normal">
              Draw
            </th>
            <th scope="col" className="w-36 pr-3 text-right font-normal">
              Of top rpm
            </th>
          </tr>
        </thead>
        <tbody className="figures">
          {speeds.map(({ setting, volts, amps, share }) => (
            <tr key={setting} className="border-t border-rule">
              <th scope="row" className="pl-3 text-left font-normal">
                {setting}
              </th>
              <td className="text-right whitespace-nowrap">{volts === null ? "none" : voltsText(volts)}</td>
              <td className="text-right whitespace-nowrap">{ampsText(amps)}</td>
              <td className="pr-3 text-right whitespace-nowrap">{percent(share)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  ));
}

/** All wires at once, from a list somebody typed or exported. */
function WireListForm({ refused }: { refused: readonly string[] | null }) {
  return (
    <details className="text-base" open={refused !== null}>
      <summary className="flex min-h-11 cursor-pointer items-center underline">Paste a wire list</summary>
      <Form method="post" className="grid gap-2">
        <label className="grid gap-1 text-soft">
          Columns wire, from, to, colour, mm2, metres, by commas, semicolons or tabs; it takes the place of
          all wires above
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
          Take the list
        </button>
      </Form>
    </details>
  );
}

interface StoreProps {
  readonly name: TracedDraft["name"];
  readonly shelf: TracedDraft["shelf"];
  /** Changes are on their way that would be missing. */
  readonly waiting: boolean;
  readonly refused: readonly string[] | null;
}

/** The way onto the shelf, as a new circuit or as the next version of one. */
function Store({ name, shelf, waiting, refused }: StoreProps) {
  const busy = useNavigation().state !== "idle" || waiting;
  return (
    <section aria-labelledby="store" className="sheet-card grid gap-3 p-4">
      <h2 id="store" className="text-lg font-bold">
        Onto the shelf
      </h2>
      {shelf && shelf.twins.length > 0 && (
        <p className="text-base">
          The same shape is there already: {shelf.twins.map(({ title }) => title).join("; ")}.
        </p>
      )}
      {shelf?.changes && (
        <p className="text-base">
          {shelf.changes.length === 0
            ? "It says nothing that the shelf does not say already."
            : `It becomes version ${shelf.version}; ${shelf.changes.length} things differ: ${shelf.changes
                .slice(0, 12)
                .map(({ id }) => id)
                .join(", ")}. Jobs stay on the version they began with until they are moved.`}
        </p>
      )}
      <Form method="post" className="flex flex-wrap items-end gap-3" key={name.id}>
        <label className="grid grow gap-1 text-base text-soft">
          Vehicle
          <input
            name="title"
            defaultValue={name.title}
            required
            maxLength={200}
            className="field w-full text-ink"
          />
        </label>
        <label className="grid gap-1 text-base text-soft">
          Its id on the shelf
          <input
            name="id"
            defaultValue={name.id}
            required
            maxLength={64}
            className="field figures w-64 text-ink"
          />
        </label>
        <button type="submit" name="intent" value="store" className="btn btn-main" disabled={busy}>
          {shelf?.changes ? `Store as version ${shelf.version}` : "Put it on the shelf"}
        </button>
        {refused && <Refusal problems={refused} />}
      </Form>
    </section>
  );
}

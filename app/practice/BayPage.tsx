import { historyOf } from "@core/predict/observations/history";
import type { AnyTest } from "@core/predict/observations/observation";
import type { TestOf } from "@core/predict/reading";
import { tenthsText } from "@core/units/wording";
import { questionWords } from "@words/tests/history";
import type { Dispatch, SetStateAction } from "react";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Form, Link, useActionData, useNavigation, useSubmit } from "react-router";
import { plainSheet } from "../sheet/plainSheet";
import type { ProbeTarget } from "../sheet/probeTarget";
import { targetName } from "../sheet/probeTarget";
import { SetupBar } from "../sheet/SetupBar";
import { orderSheet, SheetTools } from "../sheet/SheetTools";
import { LaidOutSheet } from "../sheet/SheetView";
import type { SheetProps } from "../sheet/sheetProps";
import { bareState } from "../sheet/sheetState";
import { type ShownSetup, testSetup } from "../sheet/shownSetup";
import { BayProbe } from "./BayProbe";
import { BayRepair } from "./BayRepair";
import type { BayData } from "./bayView.server";
import { playSound } from "./playSound";

/** What was tapped on the drawing, and where the other lead is. */
function useBayTarget() {
  const [target, setTarget] = useState<ProbeTarget | null>(null);
  const [other, setOther] = useState<string | null>(null);
  const [placing, setPlacing] = useState(false);
  const take = useCallback(
    (next: ProbeTarget): void => {
      if (placing && next.kind === "point") setOther(next.name);
      else {
        setTarget(next);
        setOther(null);
      }
      setPlacing(false);
    },
    [placing],
  );
  return { target, setTarget, other, placing, setPlacing, take };
}

/** Plays the last sound once. */
function useSound(sound: BayData["sound"]): void {
  const heardAt = sound?.number ?? 0;
  useEffect(() => {
    if (sound) playSound(sound);
  }, [heardAt]);
}

/** The vehicle in the bay, and the actions on it. */
function useBay(bay: BayData) {
  const { circuit } = bay;
  const submit = useSubmit();
  const busy = useNavigation().state !== "idle";
  const [setup, setSetup] = useState<ShownSetup>({
    key: "run",
    engine: false,
    setting: circuit.settings.at(-1) ?? "off",
    unplugged: [],
    lampFor: null,
  });
  const [selectors, setSelectors] = useState<Readonly<Record<string, string>>>({});
  const send = (fields: Readonly<Record<string, string>>): void => {
    if (!busy) void submit({ ...fields, token: bay.token }, { method: "post" });
  };
  // The switch of a second blower keeps its setting for every test on the live vehicle.
  const test = (own: AnyTest | TestOf<"history">): void => {
    const moved = "setting" in own && Object.keys(selectors).length > 0;
    send({ intent: "look", look: JSON.stringify(moved ? { ...own, selectors } : own) });
  };
  return { busy, setup, setSetup, selectors, setSelectors, send, test };
}

/** The bay: a live vehicle without comments. Actions cost minutes; nothing is suggested unless asked. */
export function BayPage({ bay }: { bay: BayData }) {
  const { circuit } = bay;
  const answer = useActionData<{ problem: string | null }>();
  const vehicle = useBay(bay);
  const { setup } = vehicle;
  const probe = useBayTarget();
  const { target, other, take } = probe;
  const chosen = target ? targetName(target) : null;
  const sheet = useMemo(
    () =>
      plainSheet(circuit, bareState(setup.key, setup.setting), {
        chosen,
        other,
        unplugged: setup.unplugged,
        onTarget: take,
      }),
    [circuit, setup.key, setup.setting, setup.unplugged, chosen, other, take],
  );
  useSound(bay.sound);
  const motors = circuit.parts.flatMap(({ id, kind }) => (kind === "motor" ? [id] : []));
  const live = testSetup(setup);
  return (
    <div className="grid min-h-0 grow md:grid-cols-[minmax(0,1fr)_24rem]">
      <BayVehicle {...vehicle} {...{ bay, circuit, chosen, sheet, live, motors }} />
      <BaySide {...vehicle} {...probe} {...{ answer, chosen, bay }} />
    </div>
  );
}

interface PlacesProps {
  readonly bay: BayData;
  readonly busy: boolean;
  readonly onOpen: (place: string) => void;
}

/** What covers what, and removing it. */
const Places = ({ bay, busy, onOpen }: PlacesProps) => (
  <section aria-labelledby="places" className="grid gap-1.5">
    <h2 id="places" className="font-semibold">
      Covered
    </h2>
    <div className="flex flex-wrap gap-1.5 text-base">
      {bay.places.map(({ id, words, minutes, open }) =>
        open ? (
          <span
            key={id}
            className="grid min-h-11 place-items-center border border-dashed border-rule px-2.5 text-soft"
          >
            {words}: opened
          </span>
        ) : (
          <button key={id} type="button" className="btn px-2.5" disabled={busy} onClick={() => onOpen(id)}>
            Open {words}, {minutes}
          </button>
        ),
      )}
    </div>
  </section>
);

/** What was done, the last first. */
const Done = ({ bay, busy, onDo }: { bay: BayData; busy: boolean; onDo: (test: string) => void }) => (
  <section aria-labelledby="done" className="grid gap-1">
    <h2 id="done" className="font-semibold">
      Actions so far
    </h2>
    {bay.acts.length === 0 && <p className="text-base text-soft">No actions yet.</p>}
    {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1) */}
    <ol className="grid max-h-48 overflow-y-auto text-base" reversed data-testid="acts" tabIndex={0}>
      {[...bay.acts].reverse().map(({ number, what, came, minutes, asked }) => (
        <li key={number} className="flex justify-between gap-2 border-b border-rule py-1" data-act={number}>
          <span>
            {what}
            {came && (
              <>
                : <b>{came}</b>
              </>
            )}
            {asked && number === bay.acts.length && (
              <button
                type="button"
                className="btn my-1 flex px-3"
                disabled={busy}
                onClick={() => onDo(asked)}
              >
                Do it
              </button>
            )}
          </span>
          <span className="figures shrink-0 text-soft">{minutes}</span>
        </li>
      ))}
    </ol>
  </section>
);

interface VehicleTestsProps {
  readonly live: ReturnType<typeof testSetup>;
  readonly motors: string[];
  readonly busy: boolean;
  readonly test: (own: AnyTest | TestOf<"history">) => void;
  readonly chosen: string | null;
}

/** Tests of the vehicle as a whole: air, ear, nose and the customer's word. */
function VehicleTests({ live, motors, busy, test, chosen }: VehicleTestsProps) {
  return (
    <div className="flex flex-wrap items-center gap-2 text-base">
      {motors.map((id) => (
        <button
          key={id}
          type="button"
          className="btn px-3"
          disabled={busy}
          onClick={() => test({ test: "airflow", ...live, ...(motors.length > 1 ? { at: id } : {}) })}
        >
          Feel the air{motors.length > 1 ? `, ${id}` : ""}
        </button>
      ))}
      <button
        type="button"
        className="btn px-3"
        disabled={busy}
        onClick={() => test({ test: "listen", ...live })}
      >
        Listen
      </button>
      <button
        type="button"
        className="btn px-3"
        disabled={busy}
        onClick={() => test({ test: "smell", ...live })}
      >
        Smell
      </button>
      <label className="flex items-center gap-2">
        <span className="sr-only">Ask the customer</span>
        <select
          className="field"
          value=""
          disabled={busy}
          onChange={({ target: { value } }) =>
            value && test({ test: "history", of: value as (typeof historyOf)[number] })
          }
        >
          <option value="">Ask the customer…</option>
          {historyOf.map((of) => (
            <option key={of} value={of}>
              {questionWords[of]}?
            </option>
          ))}
        </select>
      </label>
      <SheetTools focus={chosen} />
    </div>
  );
}

interface BaySideProps {
  readonly target: ProbeTarget | null;
  readonly answer: { problem: string | null } | undefined;
  readonly chosen: string | null;
  readonly bay: BayData;
  readonly setup: ShownSetup;
  readonly setSetup: Dispatch<SetStateAction<ShownSetup>>;
  readonly other: string | null;
  readonly placing: boolean;
  readonly setPlacing: Dispatch<SetStateAction<boolean>>;
  readonly test: (own: AnyTest | TestOf<"history">) => void;
  readonly send: (fields: Readonly<Record<string, string>>) => void;
  readonly setTarget: Dispatch<SetStateAction<ProbeTarget | null>>;
  readonly busy: boolean;
}

/** What is under the probe, what was found, and the end of the case. */
function BaySide({
  target,
  answer,
  chosen,
  bay,
  setup,
  setSetup,
  other,
  placing,
  setPlacing,
  test,
  send,
  setTarget,
  busy,
}: BaySideProps) {
  return (
    <aside
      className={`flex flex-col gap-3 overflow-y-auto border-rule bg-bench p-3.5 md:border-l ${target ? "max-md:pb-[56vh]" : ""}`}
    >
      {answer?.problem && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          {answer.problem}
        </p>
      )}
      {target ? (
        <BayProbe
          key={chosen}
          bay={bay}
          target={target}
          setup={setup}
          onSetup={setSetup}
          other={other}
          placing={placing}
          onPlace={setPlacing}
          onLook={test}
          onOpen={(place) => send({ intent: "open", place })}
          onClose={() => setTarget(null)}
          busy={busy}
        />
      ) : (
        <p className="sheet-card p-3">
          Tap a point, a part or a wire on the drawing to test there. Every test costs time.
        </p>
      )}
      <Done bay={bay} busy={busy} onDo={(asked) => send({ intent: "look", look: asked })} />
      <Places bay={bay} busy={busy} onOpen={(place) => send({ intent: "open", place })} />
      <BayRepair bay={bay} busy={busy} />
      <EndCase busy={busy} send={send} bay={bay} />
      <p className="text-base text-soft">
        As in a real footwell: hands out before the key turns, fused leads only, and leave airbag plugs alone.{" "}
        <button type="button" className="underline" onClick={() => orderSheet("all")}>
          Whole drawing
        </button>
      </p>
    </aside>
  );
}

interface BayVehicleProps {
  readonly bay: BayData;
  readonly circuit: BayData["circuit"];
  readonly setup: ShownSetup;
  readonly setSetup: Dispatch<SetStateAction<ShownSetup>>;
  readonly selectors: Readonly<Record<string, string>>;
  readonly setSelectors: Dispatch<SetStateAction<Readonly<Record<string, string>>>>;
  readonly chosen: string | null;
  readonly sheet: Omit<SheetProps, "layout">;
  readonly live: {
    key: ShownSetup["key"];
    engine?: true;
    setting: string;
    unplugged?: string[];
    lampFor?: string;
  };
  readonly motors: string[];
  readonly busy: boolean;
  readonly test: (own: AnyTest | TestOf<"history">) => void;
}

/** The vehicle: its set-up, its drawing, and tests of it as a whole. */
function BayVehicle({
  bay,
  circuit,
  setup,
  setSetup,
  selectors,
  setSelectors,
  chosen,
  sheet,
  live,
  motors,
  busy,
  test,
}: BayVehicleProps) {
  return (
    <main id="main" className="flex min-w-0 flex-col gap-2.5 overflow-y-auto px-5 py-2.5 max-md:px-3">
      <header className="flex items-baseline gap-x-4 max-md:flex-wrap">
        <h1 className="shrink-0 text-xl font-bold">Practice bay</h1>
        <p className="min-w-0 truncate text-base text-soft">
          {bay.title} · {bay.learner}
        </p>
        <p className="figures ml-auto shrink-0 text-lg" data-testid="clock">
          {tenthsText(bay.minutes)} · {bay.money}
          {bay.comebacks > 0 && ` · came back ${bay.comebacks === 1 ? "once" : `${bay.comebacks} times`}`}
        </p>
      </header>
      <p className="border-l-4 border-feed pl-3">
        <b>The customer:</b> <span data-testid="says">“{bay.says}”</span>
      </p>
      <SetupBar settings={circuit.settings} heard={bay.heard} setup={setup} onSetup={setSetup}>
        {bay.switches.map(({ id, settings, words }) => (
          <label key={id} className="flex items-center gap-2 text-base">
            {words}
            <select
              className="field"
              value={selectors[id] ?? settings[0]}
              onChange={({ target: { value } }) => setSelectors({ ...selectors, [id]: value })}
            >
              {settings.map((setting) => (
                <option key={setting}>{setting}</option>
              ))}
            </select>
          </label>
        ))}
      </SetupBar>
      <div className="sheet-card sheet-pane relative grow max-md:h-[38vh] max-md:shrink-0 md:h-0 md:min-h-64">
        <LaidOutSheet layout={bay.layout} fileName={`practice-${circuit.id}`} focus={chosen} sheet={sheet} />
      </div>
      <VehicleTests live={live} motors={motors} busy={busy} test={test} chosen={chosen} />
    </main>
  );
}

interface EndCaseProps {
  readonly busy: BaySideProps["busy"];
  readonly send: BaySideProps["send"];
  readonly bay: BaySideProps["bay"];
}

/** Putting the case off, or ending it. */
function EndCase({ busy, send, bay }: EndCaseProps) {
  return (
    <div className="flex flex-wrap gap-2">
      <button type="button" className="btn" disabled={busy} onClick={() => send({ intent: "ask" })}>
        Ask Airway, 5 min
      </button>
      <Form
        method="post"
        onSubmit={(event) => !window.confirm("End the case and read the debrief?") && event.preventDefault()}
      >
        <input type="hidden" name="token" value={bay.token} />
        <button type="submit" name="intent" value="give-up" className="btn" disabled={busy}>
          Give up
        </button>
      </Form>
      <Link to={`/practice?learner=${encodeURIComponent(bay.learner)}`} className="btn">
        Save and leave
      </Link>
    </div>
  );
}

import type { Circuit } from "@core/circuit/circuit";
import type { Caution } from "@core/diagnose/tests/caution";
import { observationOf, type TestName } from "@core/predict/observations/index";
import type { AnyTest } from "@core/predict/observations/observation";
import { placeOf, seenName } from "@words/seenName";
import { wordingOf } from "@words/tests/index";
import { setupText } from "@words/tests/setupText";
import { X } from "lucide-react";
import type { Dispatch, SetStateAction } from "react";
import { useEffect, useRef, useState } from "react";
import { EntryForm, EntryProblem } from "../entries/useEntries";
import {
  otherSide,
  ownerOf,
  type ProbeTarget,
  plugsAt,
  pullable,
  targetName,
  testAt,
  testsAt,
  wiresAt,
} from "../sheet/probeTarget";
import { type ShownSetup, withPlug } from "../sheet/shownSetup";
import { KeyHint } from "../ui/KeyHint";
import { Cautions } from "./Cautions";
import { NowChoice, NowField } from "./NowState";
import { useAnswer } from "./state/useAnswer";

interface ProbePanelProps {
  readonly jobId: number;
  readonly circuit: Circuit;
  readonly target: ProbeTarget;
  readonly setup: ShownSetup;
  readonly onSetup: (setup: ShownSetup) => void;
  readonly token: string;
  /** Leading suspects, to show what each predicts. */
  readonly under: readonly { readonly fault: string; readonly words: string }[];
  /** Healthy volts at the target, which choose the test light's clip. */
  readonly healthyVolts: number | null;
  readonly fullVolts: number;
  /** True to clip the light to the other battery post. */
  readonly flipped: boolean;
  readonly onFlip: () => void;
  /** The other lead's point, once it is placed. */
  readonly other: string | null;
  /** Waits for a tap that places the other lead, or stops waiting. */
  readonly onPlaceOther: (waits: boolean) => void;
  readonly placingOther: boolean;
  readonly onTarget: (target: ProbeTarget | null) => void;
  readonly cautionsRead: readonly Caution[];
}

interface Prediction {
  readonly lines: readonly { readonly fault: string; readonly shows: string }[];
  readonly cautions: readonly Caution[];
}

/** What is under the probe: what it should show, what each leading suspect predicts, and what it did show. */
export function ProbePanel(props: ProbePanelProps) {
  const { jobId, circuit, target, setup, token, under, flipped, onFlip, onTarget } = props;
  const tests = testsAt(circuit, target);
  const [chosen, setChosen] = useState<TestName>(tests[0] ?? "look");
  const test = tests.includes(chosen) ? chosen : (tests[0] ?? "look");
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    panel.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id ?? "";
  // Feed is tested against ground, and ground against feed.
  const fed = props.healthyVolts !== null && props.healthyVolts > props.fullVolts / 2;
  const onFeed = fed === flipped;
  const clip = `${battery}.${onFeed ? "+" : "-"}`;
  const other = test === "light" ? clip : (props.other ?? `${battery}.-`);
  const look = testAt(target, test, setup, other);
  const query = new URLSearchParams({ look: JSON.stringify(look), now: token });
  for (const { fault } of under) query.append("fault", fault);
  const { answer, current } = useAnswer<Prediction>(`/jobs/${jobId}/predict?${query}`);
  const observation = observationOf(test);
  const words = observation.gives === "word" ? observation.outcomes : [];
  const name = targetName(target);
  return (
    <section
      ref={panel}
      aria-labelledby="point"
      className="sheet-card grid gap-2 p-3 tall-phone:fixed tall-phone:inset-x-0 tall-phone:bottom-[var(--rail)] tall-phone:z-30 tall-phone:max-h-[58vh] tall-phone:overflow-y-auto tall-phone:border-t-2 tall-phone:border-ink"
    >
      <PanelHead name={name} circuit={circuit} target={target} look={look} onTarget={onTarget} />
      <Around {...props} />
      <TestChoice tests={tests} test={test} setChosen={setChosen} />
      {test === "light" && (
        <button type="button" className="btn min-h-11 justify-start px-2 text-base" onClick={onFlip}>
          <KeyHint>F</KeyHint> light clipped to <b>{onFeed ? "feed" : "ground"}</b>
        </button>
      )}
      {(test === "volts" || test === "ohms") && <BlackLead props={props} other={other} battery={battery} />}
      <Predictions current={current} answer={answer} under={under} />
      <Cautions
        cautions={(answer?.cautions ?? []).filter((caution) => !props.cautionsRead.includes(caution))}
        token={token}
      />
      <NowChoice />
      <PanelEntry key={`${test} ${token}`} test={test} token={token} look={look} words={words} />
      <EntryProblem of={({ form }) => form === "panel"} />
    </section>
  );
}

function targetWords(circuit: Circuit, target: ProbeTarget): string {
  const { name } = seenName(circuit, targetName(target));
  if (target.kind !== "wire") return [name, placeOf(circuit, targetName(target))].filter(Boolean).join(", ");
  const wire = circuit.wires.find(({ id }) => id === target.id);
  return wire ? `${name}, from ${wire.from} to ${wire.to}` : name;
}

/** The target's neighbours: the part and the wires at a point, the plugs that can be disconnected, the lamp. */
function Around({ circuit, target, setup, onSetup, onTarget }: ProbePanelProps) {
  const plugs = pullable(circuit, target);
  const part = target.kind === "point" ? ownerOf(circuit, target.name) : null;
  const wires = target.kind === "point" ? wiresAt(circuit, target.name) : [];
  const kind = circuit.parts.find(({ id }) => id === targetName(target))?.kind;
  const side = target.kind === "point" ? otherSide(circuit, target.name, setup.unplugged) : null;
  const small = "min-h-11 px-1.5 text-base underline";
  return (
    <div className="-my-1 flex flex-wrap gap-x-2">
      {plugs.map((id) => (
        <button
          key={id}
          type="button"
          className={small}
          aria-pressed={setup.unplugged.includes(id)}
          onClick={() => onSetup(withPlug(setup, id))}
        >
          {setup.unplugged.includes(id) ? `reconnect ${id}` : `unplug ${id}`}
        </button>
      ))}
      {target.kind === "part" && (kind === "motor" || kind === "fuse") && (
        <button
          type="button"
          className={small}
          aria-pressed={setup.lampFor === target.id}
          onClick={() => onSetup({ ...setup, lampFor: setup.lampFor === target.id ? null : target.id })}
        >
          {setup.lampFor === target.id ? `put ${target.id} back` : `lamp in place of ${target.id}`}
        </button>
      )}
      {side && (
        <button type="button" className={small} onClick={() => onTarget({ kind: "point", name: side })}>
          other side: {side}
        </button>
      )}
      {target.kind === "point" &&
        plugsAt(circuit, target.name).map((id) => (
          <button key={id} type="button" className={small} onClick={() => onTarget({ kind: "part", id })}>
            inspect {id}
          </button>
        ))}
      {part && (
        <button type="button" className={small} onClick={() => onTarget({ kind: "part", id: part })}>
          {part}
        </button>
      )}
      {wires.map((id) => (
        <button key={id} type="button" className={small} onClick={() => onTarget({ kind: "wire", id })}>
          wire {id}
        </button>
      ))}
    </div>
  );
}

/** A figure read off a display. */
function Reads({ test }: { test: TestName }) {
  const [typed, setTyped] = useState("");
  return (
    <>
      <label htmlFor="panel-value" className="text-base">
        Reads
      </label>
      <input
        id="panel-value"
        name="value"
        inputMode="decimal"
        autoComplete="off"
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        className="field figures w-24 text-right"
      />
      <span>{wordingOf(test).unit}</span>
      <button type="submit" className="btn min-h-11 px-3 text-base">
        Save
      </button>
      {test === "ohms" && (
        <button type="submit" name="noEnd" value="yes" className="btn min-h-11 px-3 text-base">
          OL
        </button>
      )}
    </>
  );
}

interface PanelHeadProps {
  readonly name: string;
  readonly circuit: ProbePanelProps["circuit"];
  readonly target: ProbePanelProps["target"];
  readonly look: AnyTest;
  readonly onTarget: ProbePanelProps["onTarget"];
}

/** What is under the probe and the vehicle's set-up. */
function PanelHead({ name, circuit, target, look, onTarget }: PanelHeadProps) {
  return (
    <div className="flex items-start justify-between gap-3">
      <div className="min-w-0">
        <h2 id="point" className="font-bold">
          <code className="figures rounded bg-[var(--mark)] px-1">{name}</code>
        </h2>
        <p className="text-base text-soft">{targetWords(circuit, target)}</p>
        <p className="text-base text-soft">{"setting" in look ? setupText(circuit, look) : "key off"}</p>
      </div>
      <button
        type="button"
        className="btn min-h-11 px-2"
        onClick={() => onTarget(null)}
        aria-label="Close the test panel"
      >
        <X aria-hidden="true" className="size-5" />
      </button>
    </div>
  );
}

interface TestChoiceProps {
  readonly tests: readonly TestName[];
  readonly test: TestName;
  readonly setChosen: Dispatch<SetStateAction<TestName>>;
}

/** Which test is made there. */
function TestChoice({ tests, test, setChosen }: TestChoiceProps) {
  return (
    <fieldset
      aria-label="Test"
      className="flex flex-wrap overflow-hidden rounded-card border border-[var(--edge)]"
    >
      {tests.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === test}
          onClick={() => setChosen(one)}
          className="min-h-11 grow border-r border-rule px-2.5 text-base last:border-r-0 aria-pressed:bg-ink aria-pressed:text-paper"
        >
          {wordingOf(one).short}
        </button>
      ))}
    </fieldset>
  );
}

interface BlackLeadProps {
  readonly props: ProbePanelProps;
  readonly other: string;
  readonly battery: string;
}

/** Where the meter's other lead is. */
function BlackLead({ props, other, battery }: BlackLeadProps) {
  return (
    <button
      type="button"
      aria-pressed={props.placingOther}
      className="btn min-h-11 justify-start px-2 text-base aria-pressed:bg-[var(--mark)]"
      onClick={() => props.onPlaceOther(!props.placingOther)}
    >
      {props.placingOther ? (
        "Tap the point for the black lead, or here for ground"
      ) : (
        <>
          black lead on <b>{other === `${battery}.-` ? "ground" : other}</b>
        </>
      )}
    </button>
  );
}

interface PredictionsProps {
  readonly current: boolean;
  readonly answer: Prediction | null;
  readonly under: ProbePanelProps["under"];
}

/** What a healthy vehicle and each leading suspect would show. */
function Predictions({ current, answer, under }: PredictionsProps) {
  return (
    <dl className="grid grid-cols-[1fr_auto] gap-x-4 text-base" aria-busy={!current}>
      {(answer?.lines ?? []).map(({ fault, shows }) => (
        <div key={fault} className="contents">
          <dt className={fault === "healthy" ? "font-semibold" : "text-soft"}>
            {fault === "healthy"
              ? "healthy"
              : `as if ${under.find((one) => one.fault === fault)?.words ?? fault}`}
          </dt>
          <dd className={`figures text-right whitespace-nowrap ${current ? "" : "text-soft"}`}>{shows}</dd>
        </div>
      ))}
    </dl>
  );
}

interface PanelEntryProps {
  readonly test: TestName;
  readonly token: ProbePanelProps["token"];
  readonly look: AnyTest;
  readonly words: readonly string[];
}

/** The result, by word or by figure. */
function PanelEntry({ test, token, look, words }: PanelEntryProps) {
  return (
    <EntryForm passing className="flex flex-wrap items-center gap-1.5">
      <input type="hidden" name="intent" value="reading" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="form" value="panel" />
      <input type="hidden" name="look" value={JSON.stringify(look)} />
      <NowField />
      {words.length > 0 ? (
        words.map((word) => (
          <button key={word} type="submit" name="seen" value={word} className="btn min-h-11 px-3 text-base">
            {wordingOf(test).word(word)}
          </button>
        ))
      ) : (
        <Reads test={test} />
      )}
    </EntryForm>
  );
}

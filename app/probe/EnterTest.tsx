import { historyOf } from "@core/predict/observations/history";
import { observationOf, type TestName } from "@core/predict/observations/index";
import type { TargetKind, TestForm } from "@core/predict/observations/testForm";
import { answerTitles } from "@words/tests/history";
import { testWordings, wordingOf } from "@words/tests/index";
import type { Dispatch, SetStateAction } from "react";
import { memo, useState } from "react";
import { EntryForm, EntryProblem } from "../entries/useEntries";
import { Fold } from "../ui/Fold";
import { NowField } from "./NowState";

interface EnterTestProps {
  readonly token: string;
  readonly settings: readonly string[];
  readonly points: readonly ProbePoint[];
  readonly posts: readonly Named[];
  readonly things: readonly Named[];
  readonly motors: readonly Named[];
  /** Plugs and relays, which can be taken out. */
  readonly plugs: readonly Named[];
  readonly relays: readonly Named[];
  readonly fuses: readonly Named[];
  readonly wires: readonly Named[];
}

/** An item of the circuit, and the name a technician would use. */
interface Named {
  readonly id: string;
  readonly name: string;
}

/** A point, and what must be out before a probe can touch it; null if nothing. */
interface ProbePoint extends Named {
  readonly out: string | null;
}

/** A reading that was not suggested: any test, any point a probe can touch, any set-up. */
export const OwnReading = memo(function OwnReading(props: EnterTestProps) {
  const [test, setTest] = useState<TestName>("light");
  const [unplugged, setUnplugged] = useState("");
  const points = props.points.filter(({ out }) => out === null || out === unplugged);
  const observation = observationOf(test);
  const { picks, hint } = wordingOf(test);
  const twoPoints = observation.form.pick.kind === "points";
  const batteryOff = observation.form.setup === "battery-off";
  return (
    <Fold title="Enter another test" className="sheet-card grow basis-[9.6rem] px-2 open:basis-full">
      <EntryForm passing className="grid grid-cols-2 gap-2 pb-3" key={props.token}>
        <input type="hidden" name="intent" value="own-reading" />
        <input type="hidden" name="token" value={props.token} />
        <NowField />
        <TestSelect test={test} setTest={setTest} />
        {twoPoints && (
          <Choice title="Unplugged or pulled" name="unplugged" value={unplugged} onChange={setUnplugged}>
            <option value="">nothing</option>
            <NamedOptions of={props.plugs} />
          </Choice>
        )}
        {twoPoints ? (
          <>
            <p className="col-span-2 text-base text-soft">
              With a plug on, a probe reaches its pins from behind. To see the points inside, choose the plug
              or relay that is out.
            </p>
            <Choice title={picks[0] ?? ""} name="first">
              <NamedOptions of={points} />
            </Choice>
            <Choice title={picks[1] ?? ""} name="second">
              <NamedOptions of={[...props.posts, ...points]} />
            </Choice>
          </>
        ) : (
          <ThingChoice title={picks[0] ?? ""} items={itemsFor(observation.form, props)} />
        )}
        <Choice title="Speed" name="setting">
          {options(props.settings)}
        </Choice>
        <Choice title="Key" name="key" initial={batteryOff ? "off" : "run"} key={`key-${batteryOff}`}>
          {options(batteryOff ? ["off"] : ["run", "acc", "off"])}
        </Choice>
        {observation.gives === "word" ? (
          <Choice title="Result" name="result">
            {options(observation.outcomes)}
          </Choice>
        ) : (
          <label className="grid gap-1 text-base text-soft">
            Reading {hint}
            <input name="result" required className="field figures w-full" autoComplete="off" />
          </label>
        )}
        <button type="submit" className="btn self-end">
          Save reading{" "}
        </button>
        <div className="col-span-2">
          <EntryProblem of={({ intent }) => intent === "own-reading"} />
        </div>
      </EntryForm>
    </Fold>
  );
});

interface ThingChoiceProps {
  readonly title: string;
  readonly items: readonly Named[];
}

/** The thing a test is made on, if it is made on one. */
const ThingChoice = ({ title, items }: ThingChoiceProps) =>
  items.length > 0 && (
    <Choice title={title} name="at">
      <NamedOptions of={items} />
    </Choice>
  );

/** Things a test can be made on; empty for tests at the vent. */
function itemsFor({ pick, targets }: TestForm, { motors, relays, fuses, wires, things }: EnterTestProps) {
  if (pick.kind === "answer") return historyOf.map((id) => ({ id, name: answerTitles[id] }));
  if (pick.kind !== "thing") return [];
  if (targets.other !== undefined) return things;
  const ids: readonly (readonly [TargetKind, readonly Named[]])[] = [
    ["motor", motors],
    ["relay", relays],
    ["fuse", fuses],
    ["wire", wires],
  ];
  return ids.flatMap(([kind, own]) => (targets[kind] === undefined ? [] : own));
}

const NamedOptions = ({ of }: { of: readonly Named[] }) =>
  of.map(({ id, name }) => (
    <option key={id} value={id}>
      {name}
    </option>
  ));

const options = (values: readonly string[]) =>
  values.map((value) => (
    <option key={value} value={value}>
      {value}
    </option>
  ));

interface ChoiceProps {
  readonly title: string;
  readonly name: string;
  readonly value?: string;
  readonly initial?: string;
  readonly onChange?: (value: string) => void;
  readonly children: React.ReactNode;
}

function Choice({ title, name, value, initial, onChange, children }: ChoiceProps) {
  return (
    <label className="grid gap-1 text-base text-soft">
      {title}
      <select
        name={name}
        className="field w-full"
        {...(value === undefined ? { defaultValue: initial } : { value })}
        onChange={({ target }) => onChange?.(target.value)}
      >
        {children}
      </select>
    </label>
  );
}

interface TestSelectProps {
  readonly test: TestName;
  readonly setTest: Dispatch<SetStateAction<TestName>>;
}

/** Which test it was. */
function TestSelect({ test, setTest }: TestSelectProps) {
  return (
    <Choice title="Test" name="test" value={test} onChange={(value) => setTest(observationOf(value).name)}>
      {testWordings.map(({ name, title }) => (
        <option key={name} value={name}>
          {title}
        </option>
      ))}
    </Choice>
  );
}

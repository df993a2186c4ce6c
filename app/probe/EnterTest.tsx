import type { TestName } from "@core/predict/reading";
import { memo, useState } from "react";
import { EntryForm, EntryProblem } from "../entries/useEntries";
import { Fold } from "../ui/Fold";

interface OwnReadingProps {
  readonly token: string;
  readonly settings: readonly string[];
  readonly points: readonly string[];
  readonly posts: readonly string[];
  readonly things: readonly { readonly id: string; readonly name: string }[];
  readonly motors: readonly string[];
  readonly plugs: readonly string[];
  readonly relays: readonly string[];
  readonly fuses: readonly string[];
  readonly wires: readonly string[];
  readonly words: Readonly<Partial<Record<TestName, readonly string[]>>>;
}

const tests: readonly { test: TestName; title: string }[] = [
  { test: "light", title: "test light" },
  { test: "volts", title: "volts" },
  { test: "ohms", title: "ohms, battery off" },
  { test: "airflow", title: "air at the vent" },
  { test: "look", title: "a look" },
  { test: "amps", title: "amps, by clamp" },
  { test: "listen", title: "listen" },
  { test: "smell", title: "smell" },
  { test: "spin", title: "spin by hand" },
  { test: "tap", title: "tap or wiggle" },
  { test: "lampload", title: "load lamp in its place" },
  { test: "swap", title: "known-good relay" },
  { test: "ripple", title: "current humps" },
  { test: "history", title: "ask the customer" },
];

const numberHints: Partial<Record<TestName, string>> = {
  ohms: "(Ω, or “no end”)",
  volts: "(V)",
  amps: "(A)",
};

/** A reading nobody suggested: any test, any points, any set-up. */
export const OwnReading = memo(function OwnReading(props: OwnReadingProps) {
  const [test, setTest] = useState<TestName>("light");
  const twoPoints = test === "light" || test === "volts" || test === "ohms";
  const words = props.words[test]?.length ? props.words[test] : undefined;
  const items = itemsFor(test, props);
  return (
    <Fold title="Own reading" className="sheet-card grow basis-36 px-3 open:basis-full">
      <EntryForm passing className="grid grid-cols-2 gap-2 pb-3" key={props.token}>
        <input type="hidden" name="intent" value="own-reading" />
        <input type="hidden" name="token" value={props.token} />
        <Choice title="Test" name="test" value={test} onChange={(value) => setTest(value as TestName)}>
          {tests.map(({ test: name, title }) => (
            <option key={name} value={name}>
              {title}
            </option>
          ))}
        </Choice>
        {twoPoints ? (
          <>
            <Choice title={test === "light" ? "Touch" : "Red on"} name="first">
              {options(props.points)}
            </Choice>
            <Choice title={test === "light" ? "Clip on" : "Black on"} name="second">
              {options([...props.posts, ...props.points])}
            </Choice>
          </>
        ) : (
          items.length > 0 && (
            <Choice title={test === "history" ? "About" : "At"} name="at">
              {items.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Choice>
          )
        )}
        <Choice title="Speed" name="setting">
          {options(props.settings)}
        </Choice>
        <Choice
          title="Key"
          name="key"
          initial={test === "ohms" ? "off" : "run"}
          key={`key-${test === "ohms"}`}
        >
          {options(test === "ohms" ? ["off"] : ["run", "acc", "off"])}
        </Choice>
        {twoPoints && (
          <Choice title="Plug off" name="unplugged">
            <option value="">none</option>
            {options(props.plugs)}
          </Choice>
        )}
        {words ? (
          <Choice title="Showed" name="result">
            {options(words)}
          </Choice>
        ) : (
          <label className="grid gap-1 text-base text-soft">
            Read {numberHints[test]}
            <input name="result" required className="field figures w-full" autoComplete="off" />
          </label>
        )}
        <button type="submit" className="btn self-end">
          Enter
        </button>
        <div className="col-span-2">
          <EntryProblem of={({ intent }) => intent === "own-reading"} />
        </div>
      </EntryForm>
    </Fold>
  );
});

const asked = [
  { id: "heat", name: "heat changes it" },
  { id: "bumps", name: "bumps change it" },
  { id: "damp", name: "damp changes it" },
  { id: "wet-carpet", name: "wet carpet" },
  { id: "recent-work", name: "recent work" },
  { id: "recall", name: "a recall" },
];

/** What a test can be done at; none for those done at the vent. */
function itemsFor(test: TestName, { motors, relays, fuses, wires, things }: OwnReadingProps) {
  const plain = (ids: readonly string[]) => ids.map((id) => ({ id, name: id }));
  switch (test) {
    case "spin":
    case "ripple":
      return plain(motors);
    case "swap":
      return plain(relays);
    case "lampload":
      return plain([...motors, ...fuses]);
    case "amps":
      return plain([...motors, ...wires]);
    case "history":
      return asked;
    case "look":
    case "tap":
      return things;
    default:
      return [];
  }
}

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

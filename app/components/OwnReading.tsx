import type { TestName } from "@core/predict/reading";
import { useState } from "react";
import { useFetcher } from "react-router";

interface OwnReadingProps {
  readonly token: string;
  readonly settings: readonly string[];
  readonly points: readonly string[];
  readonly posts: readonly string[];
  readonly things: readonly { readonly id: string; readonly name: string }[];
  readonly motors: readonly string[];
  readonly plugs: readonly string[];
  readonly words: Readonly<Partial<Record<TestName, readonly string[]>>>;
}

const tests: readonly { test: TestName; title: string }[] = [
  { test: "light", title: "test light" },
  { test: "volts", title: "volts" },
  { test: "ohms", title: "ohms, battery off" },
  { test: "airflow", title: "air at the vent" },
  { test: "look", title: "a look" },
  { test: "spin", title: "spin by hand" },
];

/** A reading nobody suggested: any test, any points, any set-up. */
export function OwnReading(props: OwnReadingProps) {
  const fetcher = useFetcher<{ problem?: string }>();
  const [test, setTest] = useState<TestName>("light");
  const twoPoints = test === "light" || test === "volts" || test === "ohms";
  const words = props.words[test];
  const items = test === "spin" ? props.motors.map((id) => ({ id, name: id })) : props.things;
  return (
    <details className="sheet-card grow px-3">
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        A reading of your own
      </summary>
      <fetcher.Form method="post" className="grid grid-cols-2 gap-2 pb-3" key={props.token}>
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
          test !== "airflow" && (
            <Choice title="At" name="at">
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
            Read {test === "ohms" ? "(Ω, or “no end”)" : "(V)"}
            <input name="result" required className="field figures w-full" autoComplete="off" />
          </label>
        )}
        <button type="submit" className="btn self-end">
          Enter
        </button>
        {fetcher.data?.problem && (
          <p role="alert" className="col-span-2 text-danger">
            {fetcher.data.problem}
          </p>
        )}
      </fetcher.Form>
    </details>
  );
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

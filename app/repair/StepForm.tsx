import type { AccessStep } from "@core/access/plan";
import { plugsText, routesText } from "@core/access/planText";
import { stepCautions } from "@core/access/stepCaution";
import { stepKinds } from "@core/access/stepKind";
import { fastenersText } from "@core/access/typedFastener";
import { stepCautionWords } from "@words/stepCautionWords";
import type { FetcherWithComponents } from "react-router";
import { useFetcher } from "react-router";
import { FastenerField } from "./FastenerField";

interface StepFormProps {
  /** Null for a new step. */
  readonly step: AccessStep | null;
  readonly token: string;
  readonly onDone?: () => void;
}

const kindWords: Readonly<Record<(typeof stepKinds)[number], string>> = {
  "battery-off": "disconnect battery negative",
  battery: "move the battery",
  panel: "panel or cover",
  plug: "plug",
  tube: "tube",
  bracket: "bracket with something on it",
  screws: "screws only",
  twist: "twist lock",
  tie: "neighbouring part moved aside",
  cut: "cutting",
  break: "breaking off a screw ear",
  splice: "splicing",
  out: "the part itself",
};

/** A step as typed: what it is, what must be done before it, what it exposes. */
export function StepForm({ step, token }: StepFormProps) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const own: Partial<AccessStep> = step ?? {};
  return (
    <fetcher.Form method="post" className="grid gap-2 py-2 sm:grid-cols-2">
      <input type="hidden" name="token" value={token} />
      {step && <input type="hidden" name="was" value={step.id} />}
      <Text name="title" label="What to remove" value={own.title} required />
      <Text name="id" label="Short name" value={own.id} required />
      <Text name="minutes" label="Minutes, on average" value={own.minutes?.toString()} required />
      <Text name="slowMinutes" label="Minutes, slowest 1 in 10" value={own.slowMinutes?.toString()} />
      <Text
        name="needs"
        label="Steps before it: a + b / c means a and b, or c"
        value={routesText(own.needs ?? [])}
      />
      <NeedsField own={own} />
      <FastenerField key={fastenersText(own.fasteners ?? [])} value={own.fasteners ?? []} />
      <Text name="plugs" label="Plugs and their tab: X5 press, lamp" value={plugsText(own.plugs ?? [])} />
      <Text name="tools" label="Other tools" value={own.tools?.join(", ")} />
      <Text name="uses" label="New parts needed: ring, strip" value={own.uses?.join(", ")} />
      <Text name="hangs" label="What then hangs by its wires" value={own.hangs} />
      <Text name="keyed" label="The only position it fits in" value={own.keyed} />
      <Text name="opens" label="Can be tested from then on: M1, X5" value={own.opens?.join(", ")} />
      <Text
        name="back"
        label="How it is refitted; a dash if nothing is refitted"
        value={own.back === null ? "-" : own.back}
      />
      <WayChoice own={own} />
      <Text
        name="nextPerson"
        label="Extra work for the next person: minutes, why"
        value={own.nextPerson ? `${own.nextPerson.minutes}, ${own.nextPerson.why}` : ""}
      />
      <Text
        name="risk"
        label="Risk: percent, minutes, what"
        value={own.risk ? `${own.risk.p * 100}, ${own.risk.minutes}, ${own.risk.what}` : ""}
      />
      <Text name="tubes" label="Tubes" value={own.tubes?.toString()} />
      <CautionChoice own={own} />
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger sm:col-span-2">
          Not saved: {fetcher.data.problem}.
        </p>
      )}
      <StepActions fetcher={fetcher} step={step} />
    </fetcher.Form>
  );
}

interface TextProps {
  readonly name: string;
  readonly label: string;
  readonly value: string | undefined;
  readonly required?: boolean;
}

const Text = ({ name, label, value, required = false }: TextProps) => (
  <label className="grid gap-0.5 text-base text-soft">
    {label}
    <input
      key={value}
      name={name}
      defaultValue={value ?? ""}
      required={required}
      autoComplete="off"
      className="field w-full text-ink"
    />
  </label>
);

interface CautionChoiceProps {
  readonly own: Partial<AccessStep>;
}

/** Which cautions belong to the step. */
function CautionChoice({ own }: CautionChoiceProps) {
  return (
    <fieldset className="sm:col-span-2">
      <legend className="text-base text-soft">Cautions</legend>
      <div className="flex flex-wrap gap-x-4">
        {stepCautions.map((caution) => (
          <label
            key={caution}
            className="flex min-h-11 items-center gap-2 text-base"
            title={stepCautionWords[caution]}
          >
            <input
              type="checkbox"
              name="cautions"
              value={caution}
              defaultChecked={own.cautions?.includes(caution) ?? false}
              className="size-5"
            />
            {caution.replace("-", " ")}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

interface StepActionsProps {
  readonly fetcher: FetcherWithComponents<{ problem: string | null }>;
  readonly step: StepFormProps["step"];
}

/** Save, move or remove. */
function StepActions({ fetcher, step }: StepActionsProps) {
  return (
    <p className="flex flex-wrap gap-3 sm:col-span-2">
      <button
        type="submit"
        name="intent"
        value="step"
        className="btn btn-main"
        disabled={fetcher.state !== "idle"}
      >
        {step ? "Save the step" : "Add the step"}
      </button>
      {step && (
        <button
          type="submit"
          name="intent"
          value="remove"
          className="btn"
          formNoValidate
          disabled={fetcher.state !== "idle"}
        >
          Remove the step
        </button>
      )}
    </p>
  );
}

interface NeedsFieldProps {
  readonly own: Partial<AccessStep>;
}

/** What must be done before. */
function NeedsField({ own }: NeedsFieldProps) {
  return (
    <label className="grid min-w-0 gap-0.5 text-base text-soft">
      Kind of step
      <select name="kind" defaultValue={own.kind ?? ""} className="field w-full min-w-0 text-ink">
        <option value="">nothing special</option>
        {stepKinds.map((kind) => (
          <option key={kind} value={kind}>
            {kindWords[kind]}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Which approach the step belongs to. */
const WayChoice = ({ own }: { readonly own: Partial<AccessStep> }) => (
  <label className="grid gap-0.5 text-base text-soft">
    Way
    <select name="way" defaultValue={own.way ?? ""} className="field text-ink">
      <option value="">every route</option>
      <option value="book">by the book</option>
      <option value="short-cut">shortcut</option>
      <option value="other-side">from the other side</option>
    </select>
  </label>
);

import type { Preference } from "@core/access/route";
import { minutesText } from "@core/units/wording";
import { Redo2, Undo2 } from "lucide-react";
import { useState } from "react";
import type { FetcherWithComponents } from "react-router";
import { useFetcher } from "react-router";
import { Fold } from "../ui/Fold";
import { useFileDrop } from "../ui/useFileDrop";
import { PlanGraph } from "./AccessPlanGraph";
import type { AccessPlanPageData } from "./accessPlanView.server";
import { preferenceWords } from "./RouteChoice";
import { StepForm } from "./StepForm";
import { TemplateButtons } from "./TemplateButtons";

type Own = NonNullable<AccessPlanPageData["own"]>;
type Answer = { readonly problem: string | null };

/** The plan being edited: its graph, its findings, and a form for each step. */
export function AccessPlanEditor({ page, own }: { page: AccessPlanPageData; own: Own }) {
  const [shown, setShown] = useState<{ readonly part: string; readonly prefer: Preference } | null>(null);
  const { plan, findings, targets } = own;
  const lit = targets
    .find(({ id }) => id === shown?.part)
    ?.routes.find(({ prefer }) => prefer === shown?.prefer)?.steps;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <Move page={page} intent="undo" able={own.undo} />
        <Move page={page} intent="redo" able={own.redo} />
        <a href={`/shelf/${page.shelfId}/way/file`} download className="btn text-base">
          airway-plan file
        </a>
      </div>
      <Name page={page} own={own} />
      {findings.length > 0 ? (
        <section aria-labelledby="findings" className="border-l-4 border-feed pl-3">
          <h2 id="findings" className="font-bold">
            Problems with this plan
          </h2>
          <ul className="list-disc pl-5 text-base">
            {findings.map(({ words }) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
      ) : (
        <p className="text-base text-good">✓ Every part can be reached and every step is used.</p>
      )}
      <PlanGraph plan={plan} layout={own.layout} lit={new Set(lit ?? [])} />
      <p className="text-base text-soft">
        Read from the outside in. A line runs from a step to the step it must come before. Dashed lines with
        letters are alternatives: do all steps of one letter.
      </p>
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <StepsColumn plan={plan} page={page} />
        <div className="grid gap-4">
          <Targets page={page} own={own} shown={shown} onShow={setShown} />
          <Bring page={page} />
        </div>
      </div>
    </>
  );
}

function Move({ page, intent, able }: { page: AccessPlanPageData; intent: "undo" | "redo"; able: boolean }) {
  const fetcher = useFetcher();
  const Icon = intent === "undo" ? Undo2 : Redo2;
  return (
    <fetcher.Form method="post">
      <input type="hidden" name="token" value={page.token} />
      <button
        type="submit"
        name="intent"
        value={intent}
        className="btn text-base"
        disabled={!able || fetcher.state !== "idle"}
      >
        <Icon aria-hidden="true" className="size-5" />
        {intent === "undo" ? "Undo" : "Redo"}
      </button>
    </fetcher.Form>
  );
}

function Name({ page, own }: { page: AccessPlanPageData; own: Own }) {
  const fetcher = useFetcher<Answer>();
  const { title = "", where = "" } = own.plan;
  return (
    <fetcher.Form method="post" className="flex flex-wrap items-end gap-2" key={`${title} ${where}`}>
      <input type="hidden" name="token" value={page.token} />
      <label className="grid grow gap-0.5 text-base text-soft">
        Name of the plan
        <input name="title" required maxLength={200} defaultValue={title} className="field text-ink" />
      </label>
      <label className="grid grow-[2] gap-0.5 text-base text-soft">
        Where the motor is
        <input name="where" maxLength={300} defaultValue={where} className="field text-ink" />
      </label>
      <button type="submit" name="intent" value="name" className="btn">
        Save name
      </button>
      <Problem words={fetcher.data?.problem} />
    </fetcher.Form>
  );
}

const Problem = ({ words }: { words: string | null | undefined }) =>
  words && (
    <p role="alert" className="w-full text-danger">
      Not saved: {words}.
    </p>
  );

interface TargetsProps {
  readonly page: AccessPlanPageData;
  readonly own: Own;
  readonly shown: { readonly part: string; readonly prefer: Preference } | null;
  readonly onShow: (shown: { readonly part: string; readonly prefer: Preference }) => void;
}

function Targets({ page, own, shown, onShow }: TargetsProps) {
  const fetcher = useFetcher<Answer>();
  return (
    <section aria-labelledby="targets" className="text-base">
      <h2 id="targets" className="text-lg font-bold">
        Parts it reaches
      </h2>
      <ul>
        {own.targets.map(({ id, name, ways, routes }) => (
          <TargetLine
            key={id}
            id={id}
            name={name}
            routes={routes}
            shown={shown}
            onShow={onShow}
            fetcher={fetcher}
            ways={ways}
            page={page}
          />
        ))}
      </ul>
      <fetcher.Form method="post" className="flex flex-wrap items-end gap-2 border-t border-rule pt-2">
        <input type="hidden" name="token" value={page.token} />
        <label className="grid gap-0.5 text-soft">
          Another part
          <select name="part" className="field text-ink">
            {own.free.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="grid grow gap-0.5 text-soft">
          Last steps before the part is free
          <input name="ways" required className="field w-full text-ink" />
        </label>
        <button type="submit" name="intent" value="target" className="btn">
          Add the part
        </button>
        <Problem words={fetcher.data?.problem} />
      </fetcher.Form>
    </section>
  );
}

function Bring({ page }: { page: AccessPlanPageData }) {
  const fetcher = useFetcher<Answer>();
  const [text, setText] = useState("");
  const drop = useFileDrop((file) => void file?.text().then(setText));
  return (
    <section aria-labelledby="bring" className={`text-base ${drop.over ? "bg-mark" : ""}`} {...drop.target}>
      <h2 id="bring" className="text-lg font-bold">
        Import a plan
      </h2>
      <fetcher.Form method="post" className="grid gap-2">
        <input type="hidden" name="token" value={page.token} />
        <label className="grid gap-1 text-soft">
          Drop or paste an airway-plan file. You can undo the import
          <textarea
            name="text"
            required
            rows={3}
            maxLength={300_000}
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="field figures w-full text-ink"
          />
        </label>
        <button type="submit" name="intent" value="bring" className="btn justify-self-start">
          Import
        </button>
        <Problem words={fetcher.data?.problem} />
      </fetcher.Form>
    </section>
  );
}

/** A vehicle without a plan: start from the nearest template, or import one. */
export function AccessPlanTemplates({ page }: { page: AccessPlanPageData }) {
  const fetcher = useFetcher<Answer>();
  return (
    <div className="grid max-w-3xl gap-4">
      <section className="tag-card">
        <div className="tag-face">
          <h2 className="pr-8 font-bold">There is no access plan yet. Start from the closest template:</h2>
          <fetcher.Form method="post" className="mt-2 grid gap-2">
            <input type="hidden" name="token" value={page.token} />
            <input type="hidden" name="intent" value="begin" />
            <TemplateButtons templates={page.templates} />
            <Problem words={fetcher.data?.problem} />
          </fetcher.Form>
        </div>
      </section>
      <Bring page={page} />
    </div>
  );
}

interface TargetLineProps {
  readonly id: string;
  readonly name: string;
  readonly routes: { prefer: "kind" | "book" | "quickest"; minutes: number | null; steps: string[] }[];
  readonly shown: TargetsProps["shown"];
  readonly onShow: TargetsProps["onShow"];
  readonly fetcher: FetcherWithComponents<Answer>;
  readonly ways: string;
  readonly page: TargetsProps["page"];
}

/** A part and the steps that lead to it. */
function TargetLine({ id, name, routes, shown, onShow, fetcher, ways, page }: TargetLineProps) {
  return (
    <li data-target={id} className="border-t border-rule py-2">
      <b>{name}</b>
      <span className="ml-2 inline-flex flex-wrap gap-1">
        {routes.map(({ prefer, minutes }) => (
          <button
            key={prefer}
            type="button"
            disabled={minutes === null}
            aria-pressed={shown?.part === id && shown.prefer === prefer}
            className="btn px-2 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() => onShow({ part: id, prefer })}
          >
            {preferenceWords[prefer].toLowerCase()}: {minutes === null ? "none" : minutesText(minutes)}
          </button>
        ))}
      </span>
      <fetcher.Form method="post" className="mt-1 flex flex-wrap items-end gap-2" key={ways}>
        <input type="hidden" name="token" value={page.token} />
        <input type="hidden" name="part" value={id} />
        <label className="grid grow gap-0.5 text-soft">
          Last steps before the part is free
          <input name="ways" defaultValue={ways} className="field w-full text-ink" />
        </label>
        <button type="submit" name="intent" value="target" className="btn">
          Change
        </button>
        <button type="submit" name="intent" value="drop-target" className="min-h-11 px-1 underline">
          take out<span className="sr-only"> {name}</span>
        </button>
      </fetcher.Form>
    </li>
  );
}

interface StepsColumnProps {
  readonly plan: Own["plan"];
  readonly page: AccessPlanPageData;
}

/** The steps of the plan. */
function StepsColumn({ plan, page }: StepsColumnProps) {
  return (
    <section aria-labelledby="steps">
      <h2 id="steps" className="text-lg font-bold">
        Steps
      </h2>
      <ul className="border-b border-rule text-base">
        {plan.steps.map((step) => (
          <li key={step.id} data-step={step.id} className="border-t border-rule">
            <Fold title={`${step.title}, ${minutesText(step.minutes)}`}>
              <StepForm step={step} token={page.token} />
            </Fold>
          </li>
        ))}
        <li className="border-t border-rule" data-step="">
          <Fold title="Add a step">
            <StepForm key={plan.steps.length} step={null} token={page.token} />
          </Fold>
        </li>
      </ul>
    </section>
  );
}

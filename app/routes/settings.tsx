import { problemsOf, problemText } from "@core/formats/problem";
import { roundingRules } from "@core/money/rounding";
import { shopTermsSchema } from "@core/money/shopTerms";
import { setShopTerms, shopTerms } from "@db/repositories/settings.server";
import { data, Form, Link, useNavigation } from "react-router";
import { Rail } from "../components/Rail";
import { typedScaled } from "../estimate/quantity";
import { amountText, typedMinor } from "../format/money";
import type { Route } from "./+types/settings";

export const meta: Route.MetaFunction = () => [{ title: "Shop's terms · Airway" }];

export const loader = async () => ({ terms: await shopTerms() });

export async function action({ request }: Route.ActionArgs) {
  const fields = Object.fromEntries(await request.formData()) as Record<string, unknown>;
  const text = (name: string): string => (typeof fields[name] === "string" ? fields[name] : "");
  const currency = text("currency").trim().toUpperCase();
  const wordsOf: Record<string, string> = {};
  const minor = (name: string): number | undefined => {
    try {
      const value = typedMinor(text(name), currency);
      if (value === null) wordsOf[name] = `is no amount of ${currency}, got ${JSON.stringify(text(name))}`;
      return value ?? undefined;
    } catch {
      return undefined;
    }
  };
  const basisPoints = (name: string): number | undefined => {
    const value = typedScaled(text(name), 2);
    if (value === null) wordsOf[name] = `is no share in per cent, got ${JSON.stringify(text(name))}`;
    return value ?? undefined;
  };
  const input = {
    currency,
    hourMinor: minor("hourMinor"),
    diagnosisMinimumMinutes: Number(text("diagnosisMinimumMinutes") || Number.NaN),
    diagnosisPolicy: text("diagnosisPolicy"),
    labourBy: text("labourBy"),
    markupBasisPoints: basisPoints("markupBasisPoints"),
    consumablesBasisPoints: basisPoints("consumablesBasisPoints"),
    labourTaxBasisPoints: basisPoints("labourTaxBasisPoints"),
    partTaxBasisPoints: basisPoints("partTaxBasisPoints"),
    rounding: { rule: text("rule"), at: text("at"), coinMinor: minor("coinMinor") },
    comebackMinor: minor("comebackMinor"),
    warrantyMonths: Number(text("warrantyMonths") || Number.NaN),
  };
  const parsed = shopTermsSchema.safeParse(input);
  if (!parsed.success) {
    const problems = problemsOf(parsed.error, input).map((problem) => {
      const name = problem.path.split(".").at(-1) ?? "";
      return problemText(wordsOf[name] ? { ...problem, message: wordsOf[name] } : problem);
    });
    return data(
      { problems, fields: Object.fromEntries(Object.keys(fields).map((name) => [name, text(name)])) },
      { status: 400 },
    );
  }
  await setShopTerms(parsed.data);
  return { problems: null, fields: null };
}

const ruleWords: Readonly<Record<string, string>> = {
  "half-up": "halves away from zero",
  "half-even": "halves to the even neighbour",
  up: "always up",
  down: "always down",
};

export default function Settings({ loaderData, actionData }: Route.ComponentProps) {
  const { terms } = loaderData;
  const typed = actionData?.fields as Record<string, string> | null | undefined;
  const busy = useNavigation().state !== "idle";
  const money = (name: string, minor: number): string => typed?.[name] ?? amountText(minor, terms.currency);
  const share = (name: string, points: number): string => typed?.[name] ?? String(points / 100);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-4xl grow content-start gap-4 p-5">
        <header>
          <p className="text-base">
            <Link to="/" className="underline">
              Board
            </Link>
          </p>
          <h1 className="text-2xl font-bold">The shop's terms</h1>
          <p className="text-base text-soft">
            What every new estimate is made on. Versions that are stored keep the terms they were made on.
          </p>
        </header>
        {actionData?.problems && (
          <div role="alert" className="border-l-4 border-danger pl-3">
            <b>Not stored:</b>
            <ul className="list-disc pl-5">
              {actionData.problems.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          </div>
        )}
        {actionData && !actionData.problems && <p role="status">Stored.</p>}
        <Form method="post" className="sheet-card grid gap-x-5 gap-y-3 p-4 sm:grid-cols-2">
          <Field
            name="currency"
            label="Currency (ISO 4217; XXX is none)"
            value={typed?.currency ?? terms.currency}
          />
          <Field name="hourMinor" label="An hour of labour" value={money("hourMinor", terms.hourMinor)} />
          <Pick
            name="labourBy"
            label="Labour goes by"
            value={terms.labourBy}
            of={{ plan: "the plan's minutes, in tenths", book: "the book's tenths" }}
          />
          <Field
            name="diagnosisMinimumMinutes"
            label="Diagnosis is at least, minutes"
            value={typed?.diagnosisMinimumMinutes ?? String(terms.diagnosisMinimumMinutes)}
          />
          <Pick
            name="diagnosisPolicy"
            label="Diagnosis is"
            value={terms.diagnosisPolicy}
            of={{ "on-top": "charged on top", swallowed: "swallowed by the job" }}
          />
          <Field
            name="markupBasisPoints"
            label="Markup on parts, %"
            value={share("markupBasisPoints", terms.markupBasisPoints)}
          />
          <Field
            name="consumablesBasisPoints"
            label="Consumables, % of labour"
            value={share("consumablesBasisPoints", terms.consumablesBasisPoints)}
          />
          <Field
            name="labourTaxBasisPoints"
            label="Tax on labour, %"
            value={share("labourTaxBasisPoints", terms.labourTaxBasisPoints)}
          />
          <Field
            name="partTaxBasisPoints"
            label="Tax on parts, %"
            value={share("partTaxBasisPoints", terms.partTaxBasisPoints)}
          />
          <Pick
            name="rule"
            label="Rounding"
            value={terms.rounding.rule}
            of={Object.fromEntries(roundingRules.map((rule) => [rule, ruleWords[rule] ?? rule]))}
          />
          <Pick
            name="at"
            label="Tax is rounded"
            value={terms.rounding.at}
            of={{ line: "on every line", total: "once on the total" }}
          />
          <Field
            name="coinMinor"
            label="Smallest coin"
            value={money("coinMinor", terms.rounding.coinMinor)}
          />
          <Field
            name="comebackMinor"
            label="A car that comes back costs"
            value={money("comebackMinor", terms.comebackMinor)}
          />
          <Field
            name="warrantyMonths"
            label="Warranty, months"
            value={typed?.warrantyMonths ?? String(terms.warrantyMonths)}
          />
          <button type="submit" className="btn btn-main justify-self-start" disabled={busy}>
            Store the terms
          </button>
        </Form>
      </main>
    </div>
  );
}

const Field = ({ name, label, value }: { name: string; label: string; value: string }) => (
  <label className="grid gap-0.5 text-base text-soft">
    {label}
    <input
      key={value}
      name={name}
      defaultValue={value}
      autoComplete="off"
      className="field figures text-ink"
    />
  </label>
);

interface PickProps {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly of: Readonly<Record<string, string>>;
}

const Pick = ({ name, label, value, of }: PickProps) => (
  <label className="grid gap-0.5 text-base text-soft">
    {label}
    <select key={value} name={name} defaultValue={value} className="field text-ink">
      {Object.entries(of).map(([own, words]) => (
        <option key={own} value={own}>
          {words}
        </option>
      ))}
    </select>
  </label>
);

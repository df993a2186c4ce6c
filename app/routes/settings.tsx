import type { RoundingRule } from "@core/money/rounding";
import { type ShopTerms, shopTermsSchema } from "@core/money/shopTerms";
import { problemsOf, problemText } from "@core/problem/problem";
import { setShopName, setShopTerms, shopName, shopTerms } from "@db/repositories/settings.server";
import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { typedScaled } from "../estimate/quantity";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { amountText, typedMinor } from "../text/money";
import type { Route } from "./+types/settings";

export const meta: Route.MetaFunction = () => [{ title: "Rates and tax · Airway" }];

export async function loader() {
  const [terms, name] = await Promise.all([shopTerms(), shopName()]);
  return { terms, name };
}

const nameSchema = z.string().trim().min(1, "must not be empty").max(80);

export async function action({ request }: Route.ActionArgs) {
  const fields = Object.fromEntries(await sentForm(request)) as Record<string, unknown>;
  const text = (name: string): string => (typeof fields[name] === "string" ? fields[name] : "");
  const currency = text("currency").trim().toUpperCase();
  const wordsOf: Record<string, string> = {};
  const minor = (name: string): number | undefined => {
    try {
      const value = typedMinor(text(name), currency);
      if (value === null)
        wordsOf[name] = `must be an amount in ${currency}, not ${JSON.stringify(text(name))}`;
      return value ?? undefined;
    } catch {
      return undefined;
    }
  };
  const basisPoints = (name: string): number | undefined => {
    const value = typedScaled(text(name), 2);
    if (value === null) wordsOf[name] = `must be a percentage, not ${JSON.stringify(text(name))}`;
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
  const name = nameSchema.safeParse(text("shopName"));
  if (!parsed.success || !name.success) {
    const found = [
      ...(name.success
        ? []
        : problemsOf(name.error, text("shopName")).map((own) => ({ ...own, path: "shopName" }))),
      ...(parsed.success ? [] : problemsOf(parsed.error, input)),
    ];
    const problems = found.map((problem) => {
      const name = problem.path.split(".").at(-1) ?? "";
      return problemText(wordsOf[name] ? { ...problem, message: wordsOf[name] } : problem);
    });
    return data(
      { problems, fields: Object.fromEntries(Object.keys(fields).map((name) => [name, text(name)])) },
      { status: 400 },
    );
  }
  await setShopTerms(parsed.data);
  await setShopName(name.data);
  return { problems: null, fields: null };
}

type Term = Exclude<keyof ShopTerms, "rounding">;

interface Shown {
  readonly name: string;
  readonly label: string;
  readonly value: (terms: ShopTerms) => string;
  /** The choices, if there are any; otherwise it is typed. */
  readonly of?: Readonly<Record<string, string>>;
}

const money = (name: string, label: string, minor: (terms: ShopTerms) => number): Shown => ({
  name,
  label,
  value: (terms) => amountText(minor(terms), terms.currency),
});
const share = (name: Term, label: string): Shown => ({
  name,
  label,
  value: (terms) => String((terms[name] as number) / 100),
});
const plain = (name: Term, label: string, of?: Shown["of"]): Shown => ({
  name,
  label,
  value: (terms) => String(terms[name]),
  ...(of ? { of } : {}),
});

/** The rates and taxes in the page's order. */
const shown: readonly Shown[] = [
  plain("currency", "Currency (ISO 4217 code; XXX for none)"),
  money("hourMinor", "Labour rate per hour", ({ hourMinor }) => hourMinor),
  plain("labourBy", "Labour is charged by", {
    plan: "planned time, in tenths of an hour",
    book: "book time, in tenths of an hour",
  }),
  plain("diagnosisMinimumMinutes", "Minimum diagnosis time, minutes"),
  plain("diagnosisPolicy", "Diagnosis is", { "on-top": "charged on top", swallowed: "included in the job" }),
  share("markupBasisPoints", "Markup on parts, %"),
  share("consumablesBasisPoints", "Consumables, % of labour"),
  share("labourTaxBasisPoints", "Tax on labour, %"),
  share("partTaxBasisPoints", "Tax on parts, %"),
  {
    name: "rule",
    label: "Rounding",
    value: ({ rounding }) => rounding.rule,
    of: {
      "half-up": "halves away from zero",
      "half-even": "halves to the nearest even digit",
      up: "always up",
      down: "always down",
    } satisfies Readonly<Record<RoundingRule, string>>,
  },
  {
    name: "at",
    label: "Tax is rounded",
    value: ({ rounding }) => rounding.at,
    of: { line: "on every line", total: "once on the total" },
  },
  money("coinMinor", "Smallest coin", ({ rounding }) => rounding.coinMinor),
  money("comebackMinor", "Cost of a comeback", ({ comebackMinor }) => comebackMinor),
  plain("warrantyMonths", "Warranty, months"),
];

export default function Settings({ loaderData, actionData }: Route.ComponentProps) {
  const { terms, name } = loaderData;
  const typed = actionData?.fields as Record<string, string> | null | undefined;
  const busy = useNavigation().state !== "idle";
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-4xl grow content-start gap-4 p-5">
        <header>
          <h1 className="text-2xl font-bold">Rates and tax</h1>
          <p className="text-base text-soft">
            New estimates use these rates. Saved versions keep the rates they were made with.
          </p>
          <p className="mt-1">
            <Link to="/phones" className="inline-flex min-h-11 items-center">
              Phones and people
            </Link>
          </p>
        </header>
        {actionData?.problems && (
          <div role="alert" className="border-l-4 border-danger pl-3">
            <b>Not saved:</b>
            <ul className="list-disc pl-5">
              {actionData.problems.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          </div>
        )}
        {actionData && !actionData.problems && <p role="status">Saved.</p>}
        <Form method="post" className="sheet-card grid gap-x-5 gap-y-3 p-4 sm:grid-cols-2">
          <Field name="shopName" label="Name of the shop" value={typed?.shopName ?? name} />
          {shown.map((field) =>
            field.of ? (
              <Pick key={field.name} {...field} value={typed?.[field.name] ?? field.value(terms)} />
            ) : (
              <Field key={field.name} {...field} value={typed?.[field.name] ?? field.value(terms)} />
            ),
          )}
          <button type="submit" className="btn btn-main justify-self-start" disabled={busy}>
            Save rates and tax
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
  readonly of?: Shown["of"];
}

const Pick = ({ name, label, value, of }: PickProps) => (
  <label className="grid gap-0.5 text-base text-soft">
    {label}
    <select key={value} name={name} defaultValue={value} className="field text-ink">
      {Object.entries(of ?? {}).map(([own, words]) => (
        <option key={own} value={own}>
          {words}
        </option>
      ))}
    </select>
  </label>
);

import { priced } from "@core/money/estimate";
import type { EstimateLine } from "@core/money/estimateLine";
import { lineKinds } from "@core/money/lineKind";
import { useId } from "react";
import type {
  UseFieldArrayAppend,
  UseFieldArrayRemove,
  UseFormRegister,
  UseFormRegisterReturn,
} from "react-hook-form";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import type { FetcherWithComponents } from "react-router";
import { useFetcher } from "react-router";
import { amountText, priceText, typedMinor } from "../text/money";
import { randomId } from "../text/randomId";
import { Fold } from "../ui/Fold";
import type { EstimateData } from "./estimateView.server";
import { typedScaled } from "./quantity";

type Body = EstimateData["versions"][number]["body"];

interface LineFields {
  readonly kind: EstimateLine["kind"];
  readonly title: string;
  readonly unit: EstimateLine["unit"];
  readonly quantity: string;
  readonly each: string;
  readonly discount: string;
  readonly tax: string;
}

interface EstimateEditorProps {
  readonly page: EstimateData;
  readonly kind: "estimate" | "bill";
  readonly title: string;
  readonly from: Body;
}

const fieldsOf = (line: EstimateLine, currency: string): LineFields => ({
  kind: line.kind,
  title: line.title,
  unit: line.unit,
  quantity: String(line.quantityMilli / 1000),
  each: amountText(line.eachMinor, currency),
  discount: String((line.discountBasisPoints ?? 0) / 100),
  tax: String(line.taxBasisPoints / 100),
});

/** A typed line as whole numbers; null if a figure cannot be read. */
function lineOf(fields: LineFields, currency: string): EstimateLine | null {
  const quantityMilli = typedScaled(fields.quantity, 3);
  const eachMinor = typedMinor(fields.each, currency);
  const discountBasisPoints = typedScaled(fields.discount || "0", 2);
  const taxBasisPoints = typedScaled(fields.tax || "0", 2);
  const title = fields.title.trim();
  if (quantityMilli === null || eachMinor === null || discountBasisPoints === null || taxBasisPoints === null)
    return null;
  if (title === "" || discountBasisPoints > 10_000 || taxBasisPoints > 10_000) return null;
  return {
    kind: fields.kind,
    title,
    unit: fields.unit,
    quantityMilli,
    eachMinor,
    discountBasisPoints,
    taxBasisPoints,
  };
}

/** Lines are changed and priced as they are typed; saving them makes the next version. */
export function EstimateEditor({ page, kind, title, from }: EstimateEditorProps) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const id = useId();
  const { currency } = from;
  const { register, control, handleSubmit, formState } = useForm<{ lines: LineFields[] }>({
    defaultValues: { lines: from.lines.map((line) => fieldsOf(line, currency)) },
    mode: "onChange",
  });
  const { fields, append, remove } = useFieldArray({ control, name: "lines" });
  const typed = useWatch({ control, name: "lines" });
  const lines = typed.flatMap((own) => lineOf(own, currency) ?? []);
  const sum = priced(lines, from.rounding);
  const whole = lines.length === typed.length;
  const store = (): void => {
    const body = JSON.stringify({ title: from.title, currency, rounding: from.rounding, lines });
    void fetcher.submit({ intent: "store", token: randomId(), kind, body }, { method: "post" });
  };
  const cell: CellOf = (name, place, width, words) => (
    <FigureCell
      words={words}
      width={width}
      problem={formState.errors.lines?.[place]?.[name]?.message}
      input={register(`lines.${place}.${name}`, {
        validate: (text: string) => readFigure(name, text, currency) !== null || "is not a valid number",
      })}
    />
  );
  return (
    <section className="sheet-card px-3 py-1 text-base" data-editor={kind}>
      <Fold title={`${title}: ${priceText(sum.totalMinor, currency)}`}>
        <form aria-label={title} onSubmit={(event) => void handleSubmit(store)(event)}>
          {fields.map((field, place) => (
            <LineFieldset key={field.id} {...{ register, field, place, cell, remove }} />
          ))}
          <EditorFoot {...{ id, append, page, currency, sum, whole, fetcher, kind }} />
          <EditorProblems whole={whole} problem={fetcher.data?.problem ?? null} />
        </form>
      </Fold>
    </section>
  );
}

/** Errors: figures that cannot be read, and the reason the server refused to store the estimate. */
const EditorProblems = ({ whole, problem }: { readonly whole: boolean; readonly problem: string | null }) => (
  <>
    {!whole && (
      <p role="alert" className="pb-2 text-danger">
        Fields with a red border need a valid number: hours and quantities with up to three decimals, money
        with two, percentages from 0 to 100.
      </p>
    )}
    {problem && (
      <p role="alert" className="pb-2 text-danger">
        Not stored: {problem}
      </p>
    )}
  </>
);

type Figure = "quantity" | "each" | "discount" | "tax";
type CellOf = (name: Figure, place: number, width: string, words: string) => React.ReactNode;

/** A figure of a line as typed; null if it cannot be read. */
const readFigure = (name: Figure, text: string, currency: string): number | null =>
  name === "each" ? typedMinor(text, currency) : typedScaled(text, name === "quantity" ? 3 : 2);

interface FigureCellProps {
  readonly words: string;
  readonly width: string;
  readonly problem: string | undefined;
  readonly input: UseFormRegisterReturn;
}

/** One figure of a line. */
const FigureCell = ({ words, width, problem, input }: FigureCellProps) => (
  <label className="grid text-base text-soft">
    {words}
    <input
      {...input}
      inputMode="decimal"
      aria-invalid={problem !== undefined}
      className={`field figures text-ink ${width} ${problem ? "border-danger" : ""}`}
    />
  </label>
);

interface EditorFootProps {
  readonly id: string;
  readonly append: UseFieldArrayAppend<{ lines: LineFields[] }, "lines">;
  readonly page: EstimateEditorProps["page"];
  readonly currency: EstimateEditorProps["from"]["currency"];
  readonly sum: ReturnType<typeof priced>;
  readonly whole: boolean;
  readonly fetcher: FetcherWithComponents<{ problem: string | null }>;
  readonly kind: EstimateEditorProps["kind"];
}

/** Another line, the total, and saving. */
function EditorFoot({ id, append, page, currency, sum, whole, fetcher, kind }: EditorFootProps) {
  return (
    <div className="flex flex-wrap items-center gap-3 border-t border-rule py-2">
      <label className="sr-only" htmlFor={id}>
        Kind of line to add
      </label>
      <select
        id={id}
        className="field"
        defaultValue="other"
        onChange={(event) => {
          const own = event.target.value as EstimateLine["kind"];
          event.target.value = "other";
          append(
            fieldsOf(
              {
                kind: own,
                title: own,
                unit: own === "labour" || own === "diagnosis" ? "h" : "pc",
                quantityMilli: 1000,
                eachMinor: own === "labour" || own === "diagnosis" ? page.terms.hourMinor : 0,
                taxBasisPoints: page.terms.partTaxBasisPoints,
              },
              currency,
            ),
          );
        }}
      >
        <option value="other">Add a line…</option>
        {lineKinds
          .filter((own) => own !== "other")
          .map((own) => (
            <option key={own} value={own}>
              {own}
            </option>
          ))}
      </select>
      <span className="grow" />
      <span>
        net <span className="figures">{priceText(sum.netMinor, currency)}</span>, tax{" "}
        <span className="figures">{priceText(sum.taxMinor, currency)}</span>, total{" "}
        <b className="figures">{priceText(sum.totalMinor, currency)}</b>
      </span>
      <button type="submit" className="btn btn-main" disabled={!whole || fetcher.state !== "idle"}>
        {kind === "bill" ? "Save the bill" : "Save as the next version"}
      </button>
    </div>
  );
}

interface LineFieldsetProps {
  readonly register: UseFormRegister<{ lines: LineFields[] }>;
  readonly field: LineFields & Record<"id", string> & { disabled?: boolean };
  readonly place: number;
  readonly cell: CellOf;
  readonly remove: UseFieldArrayRemove;
}

/** One line of the estimate. */
function LineFieldset({ register, field, place, cell, remove }: LineFieldsetProps) {
  return (
    <fieldset className="flex flex-wrap items-end gap-2 border-t border-rule py-2">
      <legend className="sr-only">line {place + 1}</legend>
      <label className="grid grow text-soft">
        Line
        <input
          {...register(`lines.${place}.title`, { required: true, maxLength: 200 })}
          className="field min-w-40 text-ink"
        />
      </label>
      {cell("quantity", place, "w-20", field.unit === "h" ? "Hours" : "Quantity")}
      {cell("each", place, "w-28", "Unit price")}
      {cell("discount", place, "w-20", "Off, %")}
      {cell("tax", place, "w-20", "Tax, %")}
      <button type="button" className="min-h-11 px-1 underline" onClick={() => remove(place)}>
        take out<span className="sr-only"> line {place + 1}</span>
      </button>
    </fieldset>
  );
}

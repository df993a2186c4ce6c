import { type WorkDone, worksDone } from "@core/labour/workDone";
import { workTitles } from "@words/workWords";
import { Form, useNavigation } from "react-router";
import { amountText } from "../text/money";
import type { LineView } from "./rounds.server";
import type { WorkData } from "./workView.server";

interface LineFormProps {
  readonly work: WorkData;
  readonly intent: "add" | "change";
  readonly line?: LineView;
  readonly problem: string | null;
}

/** The fields of a line. */
export function LineForm({ work, intent, line, problem }: LineFormProps) {
  const busy = useNavigation().state !== "idle";
  const usual: WorkDone = line?.done ?? "renewed";
  const said = (value: number | undefined): string => (value === undefined ? "" : String(value));
  const field = (name: string, title: string, value: string, decimal = true) => (
    <label className="grid gap-0.5 text-base text-soft">
      {title}
      <input
        name={name}
        defaultValue={value}
        inputMode={decimal ? "decimal" : "text"}
        maxLength={80}
        className="field w-full text-ink"
      />
    </label>
  );
  return (
    <Form method="post" className="grid gap-3 pt-1 sm:grid-cols-2">
      <input type="hidden" name="id" value={line?.id ?? ""} />
      <input type="hidden" name="token" value={work.token} />
      {line?.adapts && <input type="hidden" name="adaptsPart" value={line.adapts.part} />}
      {line?.adapts && <input type="hidden" name="adaptsWork" value={line.adapts.work} />}
      <label className="grid gap-0.5 text-base text-soft">
        What
        <select name="part" defaultValue={line?.part ?? ""} className="field w-full text-ink">
          <option value="">something else (name it)</option>
          {work.choices.map(({ part, name }) => (
            <option key={part} value={part}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {field("what", "Its name, if it is something else", line && !line.part ? line.what : "", false)}
      <label className="grid gap-0.5 text-base text-soft">
        Work
        <select name="done" defaultValue={usual} className="field w-full text-ink">
          {worksDone.map((done) => (
            <option key={done} value={done}>
              {workTitles[done]}
            </option>
          ))}
        </select>
      </label>
      {field("number", "Part number", line?.number ?? "", false)}
      {field("source", "Source", line?.source ?? "", false)}
      {field(
        "price",
        "Price",
        line?.priceMinor === undefined ? "" : amountText(line.priceMinor, work.currency),
      )}
      {field("plannedMinutes", "Planned minutes", said(line?.plannedMinutes))}
      {field("minutes", "Minutes taken", said(line?.minutes))}
      {field("warrantyMonths", "Warranty in months", said(line?.warrantyMonths))}
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          name="temporary"
          value="yes"
          defaultChecked={line?.temporary ?? false}
          className="size-5"
        />
        Temporary: it only buys time
      </label>
      <input type="hidden" name="state" value={line?.state ?? "planned"} />
      {problem && (
        <p role="alert" className="text-danger sm:col-span-2">
          {problem}.
        </p>
      )}
      <button type="submit" name="intent" value={intent} className="btn justify-self-start" disabled={busy}>
        {intent === "add" ? "Add line" : "Save line"}
      </button>
    </Form>
  );
}

import { minutesText } from "@core/units/wording";
import { Form, useNavigation } from "react-router";
import { type NoteSubject, Notes } from "../notes/Notes";
import { priceText } from "../text/money";
import { LineForm } from "./LineForm";
import type { LineView } from "./rounds.server";
import type { WorkData } from "./workView.server";

interface LineCardProps {
  readonly work: WorkData;
  readonly line: LineView;
  readonly problem: string | null;
  readonly note: (subject: NoteSubject) => void;
}

/** One line, with what can be done about it. */
export function LineCard({ work, line, problem, note }: LineCardProps) {
  const busy = useNavigation().state !== "idle";
  const act = (intent: string, title: string) => (
    <button
      type="submit"
      name="intent"
      value={intent}
      className="btn px-3"
      disabled={busy}
      aria-label={`${title}: ${line.name}`}
    >
      {title}
    </button>
  );
  const facts = [
    line.source && `from ${line.source}`,
    line.plannedMinutes !== undefined && `${minutesText(line.plannedMinutes)} planned`,
    line.minutes !== undefined && `took ${minutesText(line.minutes)}`,
    line.priceMinor !== undefined && priceText(line.priceMinor, work.currency),
    line.warrantyMonths !== undefined && `${line.warrantyMonths} months' warranty`,
  ].filter(Boolean);
  return (
    <li className="sheet-card grid gap-1 p-3" data-work={line.part ?? line.what} data-state={line.state}>
      <Form method="post" className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <input type="hidden" name="id" value={line.id} />
        <span className="min-w-0 grow">
          <b>{line.words}</b>
          <span className="text-soft">
            {line.state === "planned" ? ", planned" : ", done"}
            {facts.length > 0 && ` · ${facts.join(" · ")}`}
          </span>
        </span>
        {work.open && (
          <span className="flex flex-wrap gap-2">
            {line.state === "planned" ? act("done", "Done") : act("planned", "Not done yet")}
            <button
              type="button"
              className="btn px-3"
              aria-label={`Note or photo: ${line.name}`}
              onClick={() => note({ reading: null, work: line.id, title: `Note on: ${line.words}` })}
            >
              Note or photo
            </button>
            {act("delete", "Delete")}
          </span>
        )}
      </Form>
      <Notes jobId={work.id} notes={line.notes} />
      {work.open && (
        <details open={problem !== null || undefined}>
          <summary className="min-h-11 cursor-pointer py-2 text-base underline">Edit</summary>
          <LineForm work={work} intent="change" line={line} problem={problem} />
        </details>
      )}
    </li>
  );
}

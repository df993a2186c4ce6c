import type { RefObject } from "react";
import { useRef, useState } from "react";
import { Form, useNavigation } from "react-router";
import { useFileDrop } from "../ui/useFileDrop";
import type { CasePreview } from "./importCase.server";
import type { ImportPreview } from "./importCircuit.server";

export interface ImportAnswer {
  readonly text: string;
  readonly preview?: ImportPreview;
  /** What a case would add. */
  readonly brought?: CasePreview;
  readonly problems?: readonly string[];
}

interface ImportFormProps {
  readonly answer: ImportAnswer | undefined;
  /** What can be dropped or pasted here. */
  readonly hint: string;
  /** Made by the page, so that the same form sent twice is stored once. */
  readonly token?: string;
}

/** A dropped, chosen or pasted file; what it would change is shown before anything is stored. */
export function ImportForm({ answer, hint, token }: ImportFormProps) {
  const busy = useNavigation().state !== "idle";
  const field = useRef<HTMLTextAreaElement>(null);
  const [unread, setUnread] = useState<string | null>(null);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file || !field.current) return;
    if (file.size > mostBytes) {
      setUnread(`${file.name} is too large: at most ${mostBytes / 1000} kB.`);
      return;
    }
    setUnread(null);
    field.current.value = await file.text();
  };
  const { over, target } = useFileDrop((file) => void take(file));
  return (
    <Form method="post" encType="multipart/form-data" className="grid min-w-0 gap-3">
      {token && <input type="hidden" name="token" value={token} />}
      <FileField target={target} over={over} hint={hint} field={field} answer={answer} />
      <label className="grid min-w-0 gap-1 text-base text-soft">
        or choose a file
        <input
          type="file"
          accept=".json,.csv,.txt"
          className="field w-full min-w-0"
          onChange={({ target }) => void take(target.files?.[0])}
        />
      </label>
      {unread && (
        <p role="alert" className="text-danger">
          {unread}
        </p>
      )}
      {answer?.problems && <Refusal problems={answer.problems} />}
      {answer?.preview && <Preview preview={answer.preview} />}
      {answer?.brought && <Brought brought={answer.brought} />}
      {answer?.preview && brokenIn(answer.preview.findings).length > 0 && (
        <SaveAnyway broken={brokenIn(answer.preview.findings)} />
      )}
      <div className="flex flex-wrap gap-3">
        <button type="submit" name="intent" value="preview" className="btn" disabled={busy}>
          Preview changes
        </button>
        {answer?.preview && answer.preview.changes?.length !== 0 && (
          <button type="submit" name="intent" value="store" className="btn btn-main" disabled={busy}>
            {answer.preview.changes ? `Save as version ${answer.preview.version}` : "Save to the shelf"}
          </button>
        )}
        {answer?.brought && (
          <button type="submit" name="intent" value="store" className="btn btn-main" disabled={busy}>
            Open as a job
          </button>
        )}
      </div>
    </Form>
  );
}

const mostBytes = 200_000;

/** Why nothing was stored. */
export function Refusal({ problems }: { problems: readonly string[] }) {
  return (
    <div role="alert" className="border-l-4 border-danger pl-3">
      <p className="font-bold">Nothing was saved. Correct this first:</p>
      <ul className="list-disc pl-5 text-base">
        {problems.map((problem) => (
          <li key={problem}>{problem}</li>
        ))}
      </ul>
    </div>
  );
}

/** Asks for confirmation before a circuit with certain errors is stored. */
export const SaveAnyway = ({ broken }: { broken: readonly string[] }) => (
  <div className="w-full border-l-4 border-danger pl-3 text-base">
    <p className="font-bold">This circuit is wrong as it is:</p>
    <ul className="list-disc pl-5">
      {broken.map((words) => (
        <li key={words}>{words}</li>
      ))}
    </ul>
    <label className="flex min-h-11 items-center gap-2">
      <input type="checkbox" name="anyway" value="yes" className="size-5 accent-ink" />
      Save it anyway
    </label>
  </div>
);

/** What is certainly wrong with a circuit. */
export const brokenIn = (findings: ImportPreview["findings"]): string[] =>
  findings.flatMap(({ weight, message }) => (weight === "wrong" ? [message] : []));

const countText = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** A case: its readings become a job, for a vehicle that is named here. */
function Brought({ brought }: { brought: CasePreview }) {
  return (
    <>
      <p>
        A job with {countText(brought.readings, "reading", "readings")}
        {brought.works > 0 && `, ${countText(brought.works, "line of work", "lines of work")}`}
        {brought.failed > 0 && `, ${countText(brought.failed, "failed repair", "failed repairs")}`}.
        {brought.leavesEarlier &&
          " The file also tells of the visit before this comeback. That visit is not imported, so the new job begins without it."}
      </p>
      <Preview preview={brought.circuit} />
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="grid gap-1 text-base text-soft">
          Nickname or fleet number of the vehicle
          <input name="label" maxLength={60} className="field w-full text-ink" />
        </label>
        <label className="grid gap-1 text-base text-soft">
          Make and model
          <input name="model" maxLength={60} className="field w-full text-ink" />
        </label>
      </div>
    </>
  );
}

function Preview({ preview }: { preview: ImportPreview }) {
  const { title, shelfId, family, changes, findings, twins } = preview;
  return (
    <section aria-labelledby="preview" className="sheet-card p-4">
      <h2 id="preview" className="font-bold">
        {title} <code className="figures text-base text-soft">{shelfId}</code>
      </h2>
      <p className="text-base text-soft">{family}</p>
      {changes === null ? (
        <p className="mt-2">New to the shelf.</p>
      ) : changes.length === 0 ? (
        <p className="mt-2">The shelf already has all of it.</p>
      ) : (
        <ul className="mt-2 text-base">
          {changes.map(({ what, id, keys }) => (
            <li key={`${what} ${id}`} className="border-t border-rule py-0.5">
              <b>{id}</b> {what}
              {keys.map(({ key, before, after }) => (
                <span key={key} className="block pl-4 text-soft">
                  {key}: {before} → {after}
                </span>
              ))}
            </li>
          ))}
        </ul>
      )}
      {twins.length > 0 && (
        <p className="mt-2 text-base">
          A circuit of the same structure is already on the shelf:{" "}
          {twins.map((twin) => twin.title).join("; ")}.
        </p>
      )}
      <Findings findings={findings} />
    </section>
  );
}

/** The findings from the circuit's own currents. */
export function Findings({ findings }: { findings: ImportPreview["findings"] }) {
  if (findings.length === 0)
    return (
      <p className="mt-2 text-base text-soft">
        The currents, speeds, fuses and wires of the healthy circuit are plausible.
      </p>
    );
  return (
    <ul className="mt-2 text-base" aria-label="To check">
      {findings.map(({ path, message, weight }) => (
        <li
          key={`${path} ${message}`}
          className={`border-l-4 pl-2 ${weight === "wrong" ? "border-danger" : "border-[var(--go)]"}`}
        >
          <b>{weight === "wrong" ? "Wrong" : "Check"}:</b> {message}
          <code className="figures ml-2 text-[0.85rem] text-soft">{path}</code>
        </li>
      ))}
    </ul>
  );
}

interface FileFieldProps {
  readonly target: ReturnType<typeof useFileDrop>["target"];
  readonly over: boolean;
  readonly hint: ImportFormProps["hint"];
  readonly field: RefObject<HTMLTextAreaElement | null>;
  readonly answer: ImportFormProps["answer"];
}

/** The file, dropped or chosen. */
function FileField({ target, over, hint, field, answer }: FileFieldProps) {
  return (
    <label
      className={`grid gap-1 text-base text-soft ${over ? "outline-3 outline-[var(--feed)]" : ""}`}
      {...target}
    >
      {hint}
      <textarea
        ref={field}
        name="text"
        required
        rows={8}
        spellCheck={false}
        defaultValue={answer?.text}
        className="field figures w-full text-[0.85rem] text-ink"
      />
    </label>
  );
}

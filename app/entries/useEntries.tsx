import { entryWords } from "@words/entryWords";
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useSyncExternalStore,
} from "react";
import { useRevalidator } from "react-router";
import { textFields } from "../text/formText";
import { afterPaint } from "../ui/afterPaint";
import { subscribe, theQueue } from "./browserQueue";
import { entryId } from "./entryId";
import type { Entry, QueueState } from "./entryQueue";

/** Sets marks on the browser's timeline, from which the time from a key to the new suspects can be read. */
export const enteredMark = "airway:entered";
export const answeredMeasure = "airway:entered-to-suspects";

interface Entries {
  /** Takes an entry; it counts as stored when the server answers, and waits until then. */
  readonly enter: (fields: Readonly<Record<string, string>>) => void;
  /** Removes the last waiting entry, or deletes the last stored one. */
  readonly undo: () => void;
  /** Shows the job's present state. */
  readonly refresh: () => Promise<void>;
}

const EntriesContext = createContext<Entries>({
  enter: () => {},
  undo: () => {},
  refresh: () => Promise.resolve(),
});
export const useEntries = (): Entries => useContext(EntriesContext);

/** The last entry, if it was refused. */
const useRefused = (): QueueState["refused"] =>
  useSyncExternalStore(
    subscribe,
    () => theQueue().snapshot().refused,
    () => null,
  );

/** Where a job takes its entries. */
export const entriesAddress = (jobId: number): string => `/jobs/${jobId}/entries`;

const noLooks = "";
/** Tests of a job that wait for an absent server; not those on their way to a server that answers. */
export function useEntryAnswers(jobId: number): readonly string[] {
  const text = useSyncExternalStore(
    subscribe,
    () => {
      const { away, waiting } = theQueue().snapshot();
      if (!away) return noLooks;
      return waiting
        .flatMap((entry) => (entry.to === entriesAddress(jobId) ? [entry.fields.look ?? ""] : []))
        .join("\n");
    },
    () => noLooks,
  );
  return useMemo(() => (text === noLooks ? [] : text.split("\n")), [text]);
}

/** Milliseconds to wait for a page that is to be pushed; a connection may be lost unnoticed. */
const pushedWithin = 2500;

/** Shows the server's answer to a job's entries: the page it sent or pushes, or else the page loaded again. */
function useAnswers(jobId: number, token: string, show: (page: unknown) => void): void {
  const { revalidate } = useRevalidator();
  const present = useRef(token);
  useEffect(() => {
    present.current = token;
  }, [token]);
  useEffect(() => {
    let { stored, refused } = theQueue().snapshot();
    let overdue: ReturnType<typeof setTimeout> | undefined;
    const leave = theQueue().subscribe(() => {
      const now = theQueue().snapshot();
      // Entries the job did not take are listed at the top of its pages.
      if (now.refused?.isKept && now.refused !== refused && now.refused.to === entriesAddress(jobId))
        void revalidate();
      ({ refused } = now);
      if (now.stored === stored) return;
      ({ stored } = now);
      if (now.shown?.to !== entriesAddress(jobId)) return;
      // Of several entries, the last one's page shows all.
      clearTimeout(overdue);
      const before = present.current;
      if (now.shown.page) show(now.shown.page);
      else if (now.shown.isPushed)
        overdue = setTimeout(() => {
          if (present.current === before) void revalidate();
        }, pushedWithin);
      else void revalidate();
    });
    return () => {
      leave();
      clearTimeout(overdue);
    };
  }, [jobId, show, revalidate]);
}

interface EntriesProviderProps {
  readonly jobId: number;
  /** Changes whenever the page shows a new state of the job. */
  readonly token: string;
  /** Ids of the active readings, in order. */
  readonly standing: readonly string[];
  /** Takes the page the server answered an entry with. */
  readonly show: (page: unknown) => void;
  readonly children: React.ReactNode;
}

/** The probe page's connection to the server: every entry below it goes through one queue that loses nothing. */
export function EntriesProvider({ jobId, token, standing, show, children }: EntriesProviderProps) {
  const { revalidate } = useRevalidator();
  const enter = useCallback(
    (fields: Readonly<Record<string, string>>): void => {
      performance.mark(enteredMark);
      theQueue().enter({
        id: entryId(token, fields),
        to: entriesAddress(jobId),
        fields,
        words: entryWords(fields),
      });
    },
    [jobId, token],
  );
  const undone = useRef({ token, ids: new Set<string>() });
  const undo = useCallback((): void => {
    if (theQueue().withdrawLast(entriesAddress(jobId))) return;
    if (undone.current.token !== token) undone.current = { token, ids: new Set() };
    const { ids } = undone.current;
    const sent = theQueue()
      .snapshot()
      .waiting.filter((entry) => entry.to === entriesAddress(jobId) && entry.fields.intent !== "strike")
      .map(({ id }) => id);
    const last = [...standing, ...sent].findLast((id) => !ids.has(id));
    if (last === undefined) return;
    ids.add(last);
    enter({ intent: "strike", id: last, struck: "yes" });
  }, [jobId, token, standing, enter]);
  // Sends what an earlier page left unsent.
  useEffect(() => void theQueue().flush(), []);
  useAnswers(jobId, token, show);
  useEffect(() => {
    const [mark] = performance.getEntriesByName(enteredMark).slice(-1);
    if (!mark || token === "") return;
    return afterPaint(() => {
      performance.measure(answeredMeasure, { start: mark.startTime });
      performance.clearMarks(enteredMark);
    });
  }, [token]);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      if (theQueue().snapshot().waiting.length > 0) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, []);
  const value = useMemo(() => ({ enter, undo, refresh: revalidate }), [enter, undo, revalidate]);
  return <EntriesContext value={value}>{children}</EntriesContext>;
}

interface EntryFormProps extends React.ComponentProps<"form"> {
  /** True for a form that another form replaces once its entry is stored. */
  readonly passing?: boolean;
}

/**
 * A form whose entry goes through the queue; without scripts it is posted as usual. A `passing` form loses the focus
 * at once, since the next key belongs to the next test; a refused entry gets it back.
 */
export function EntryForm({ passing = false, ...props }: EntryFormProps) {
  const { enter } = useEntries();
  const left = useRef<{ fields: Entry["fields"]; field: HTMLElement } | null>(null);
  const refused = useRefused();
  useEffect(() => {
    if (refused && refused.fields === left.current?.fields) left.current.field.focus();
  }, [refused]);
  return (
    <form
      {...props}
      method="post"
      // Leaves the field, so that the next letter is a key of the page again, after a refused figure too.
      onKeyDown={({ key, target }) => {
        if (key === "Escape" && target instanceof HTMLElement) target.blur();
      }}
      onSubmit={(event) => {
        event.preventDefault();
        const form = event.currentTarget;
        const { submitter } = event.nativeEvent;
        const fields = textFields(new FormData(form, submitter));
        delete fields.token;
        enter(fields);
        const field = document.activeElement;
        if (!passing || !(field instanceof HTMLElement) || !form.contains(field)) return;
        left.current = { fields, field };
        field.blur();
      }}
    />
  );
}

/** Why the last entry of a form was refused, if it was that form's. */
export function EntryProblem({ of }: { of: (fields: Readonly<Record<string, string>>) => boolean }) {
  const refused = useRefused();
  if (!refused || !of(refused.fields)) return null;
  return (
    <p role="alert" className="mt-2 text-danger">
      {refused.problem}
    </p>
  );
}

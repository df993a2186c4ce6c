import { createContext, useContext, useRef, useState } from "react";
import { textFields } from "../text/formText";
import { entryId } from "./entryId";
import type { Entry } from "./entryQueue";
import { useQueued } from "./useQueued";
import { WhyWaiting } from "./WhyWaiting";

interface PageQueue {
  readonly queued: ReturnType<typeof useQueued>;
  /** Ids of the entries this page's forms have sent. */
  readonly sent: Set<string>;
}

const QueuedContext = createContext<PageQueue | null>(null);

interface QueuedPageProps {
  /** Address the page's entries are sent to: `/jobs/4/checks`. */
  readonly to: string;
  readonly children: React.ReactNode;
}

/** A page whose forms use the browser's queue: what the server does not answer at once waits, and is shown. */
export function QueuedPage({ to, children }: QueuedPageProps) {
  const queued = useQueued(to);
  const { unsent, away, refused } = queued;
  // Each form shows why its own entry was refused; entries of an earlier page have no form any more.
  const sent = useRef(new Set<string>());
  const isForms = refused !== null && !refused.isKept && sent.current.has(refused.id);
  return (
    <QueuedContext value={{ queued, sent: sent.current }}>
      {away && (
        <div role="status" className="border-l-4 border-feed pl-3 text-base">
          <p>
            <WhyWaiting />
          </p>
          <ul>
            {unsent.map(({ id, words }) => (
              <li key={id}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      {refused && !isForms && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          Not stored: {refused.words}. {refused.problem}
        </p>
      )}
      {children}
    </QueuedContext>
  );
}

function useQueuedPage(): PageQueue {
  const page = useContext(QueuedContext);
  if (!page) throw new Error("a queued form stands outside a queued page");
  return page;
}

/** Sends an entry of the page without a form. */
export const useQueuedSend = (): ((fields: Entry["fields"], words: string) => void) =>
  useQueuedPage().queued.send;

/** The last entry that is not stored and shown yet and has the given fields; null if there is none. */
export function usePending(own: Entry["fields"]): Entry["fields"] | null {
  const { pending } = useQueuedPage().queued;
  const last = pending.findLast(({ fields }) =>
    Object.entries(own).every(([name, value]) => fields[name] === value),
  );
  return last?.fields ?? null;
}

interface QueuedFormProps extends Omit<React.ComponentProps<"form">, "method" | "onSubmit"> {
  /** The text for the list of waiting entries. */
  readonly words: (fields: Entry["fields"]) => string;
}

/**
 * A form that uses its page's queue; without scripts it is posted as usual. Its field `token` changes with the state
 * of the page, so the same fields sent twice from one state are one entry.
 */
export function QueuedForm({ words, ...props }: QueuedFormProps) {
  const { queued, sent } = useQueuedPage();
  const [last, setLast] = useState<string | null>(null);
  const { refused } = queued;
  return (
    <>
      <form
        {...props}
        method="post"
        onSubmit={(event) => {
          event.preventDefault();
          const { token = "", ...fields } = textFields(
            new FormData(event.currentTarget, event.nativeEvent.submitter),
          );
          const id = entryId(token, fields);
          sent.add(id);
          setLast(id);
          queued.send(fields, words(fields), id);
        }}
      />
      {refused && !refused.isKept && refused.id === last && (
        <p role="alert" className="text-base text-danger">
          {refused.problem}
        </p>
      )}
    </>
  );
}

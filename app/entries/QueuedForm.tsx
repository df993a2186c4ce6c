import { createContext, useContext } from "react";
import { entryId } from "./entryId";
import type { Entry } from "./entryQueue";
import { fieldsOf } from "./formFields";
import { useQueued } from "./useQueued";

type Queued = ReturnType<typeof useQueued>;

const QueuedContext = createContext<Queued | null>(null);

interface QueuedPageProps {
  /** Where what is entered on the page is sent: `/jobs/4/checks`. */
  readonly to: string;
  readonly children: React.ReactNode;
}

/** A page whose forms go through the browser's queue: what the server does not take at once waits, and is shown. */
export function QueuedPage({ to, children }: QueuedPageProps) {
  const queued = useQueued(to);
  const { unsent, away, problems } = queued;
  return (
    <QueuedContext value={queued}>
      {away && (
        <div role="status" className="border-l-4 border-feed pl-3 text-base">
          <p>The server does not answer. What you enter waits on this device and will be sent.</p>
          <ul>
            {unsent.map(({ id, words }) => (
              <li key={id}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="border-l-4 border-danger pl-3">
          {problem}
        </p>
      ))}
      {children}
    </QueuedContext>
  );
}

function useQueuedPage(): Queued {
  const queued = useContext(QueuedContext);
  if (!queued) throw new Error("a queued form stands outside a queued page");
  return queued;
}

/** The last entry that is not stored and shown yet and whose fields are those given; null where there is none. */
export function usePending(own: Entry["fields"]): Entry["fields"] | null {
  const { pending } = useQueuedPage();
  const last = pending.findLast(({ fields }) =>
    Object.entries(own).every(([name, value]) => fields[name] === value),
  );
  return last?.fields ?? null;
}

interface QueuedFormProps extends Omit<React.ComponentProps<"form">, "method" | "onSubmit"> {
  /** What is entered, for the list of what waits. */
  readonly words: (fields: Entry["fields"]) => string;
}

/**
 * A form that goes through the queue of its page; without scripts it is posted as it stands. Its field `token` changes with
 * the state of the page: the same fields sent twice from one state are one entry.
 */
export function QueuedForm({ words, ...props }: QueuedFormProps) {
  const { send } = useQueuedPage();
  return (
    <form
      {...props}
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        const { token = "", ...fields } = fieldsOf(event.currentTarget, event.nativeEvent.submitter);
        send(fields, words(fields), entryId(token, fields));
      }}
    />
  );
}

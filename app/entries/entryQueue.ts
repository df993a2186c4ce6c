/** The form fields of one entry, kept in the browser until the server has stored them. */
export interface Entry {
  /** The same entry sent twice is stored once. */
  readonly id: string;
  /** Address it is posted to: `/jobs/4/entries`. */
  readonly to: string;
  readonly fields: Readonly<Record<string, string>>;
  /** The form field of a file kept beside the entry, where it has one. */
  readonly file?: string;
  /** What it says, for the list of what waits. */
  readonly words: string;
  /** When it was entered, by this machine's clock, in milliseconds. */
  readonly at: number;
}

/** Why an entry was refused. */
export interface Refusal {
  readonly problem: string;
  /** True where the job had changed meanwhile: the server keeps what was sent for a person to decide. */
  readonly isKept: boolean;
}

/** What the queue shows: what waits, and what the server said of the last entry. */
export interface QueueState {
  readonly waiting: readonly Entry[];
  /** True once the server failed to answer, until it answers again. */
  readonly away: boolean;
  /** Why the last entry was refused, where it was sent, and its fields; null when it was not. */
  readonly refused: (Refusal & Pick<Entry, "id" | "to" | "fields" | "words">) | null;
  /** Grows with every entry stored. */
  readonly stored: number;
  /** Where the last entry stored was sent, and the page as the server then showed it; null where it showed none. */
  readonly shown: { readonly to: string; readonly page: unknown } | null;
}

/** The part of a browser's storage the queue needs. */
export interface EntryStore {
  readonly length: number;
  key(index: number): string | null;
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

/** How an entry was taken: stored, with the page as it now is; refused with a reason; or not answered at all. */
export type Answer = { readonly taken: true; readonly page: unknown } | Refusal | "away";

export type Send = (entry: Entry, ageSeconds: number) => Promise<Answer>;

const prefix = "airway:waiting:";
const retryMilliseconds = 1000;
const retryMostMilliseconds = 8000;

/** An entry as a page kept it; earlier versions wrote the job's number in place of the address. */
function keptEntry(value: unknown): Entry | null {
  if (typeof value !== "object" || value === null) return null;
  const { jobId, ...kept } = value as Record<string, unknown>;
  const entry = typeof jobId === "number" ? { ...kept, to: `/jobs/${jobId}/entries` } : kept;
  return isEntry(entry) ? entry : null;
}

function isEntry(value: Record<string, unknown>): value is Record<string, unknown> & Entry {
  const { id, to, fields, words, at, file } = value;
  return (
    typeof id === "string" &&
    typeof to === "string" &&
    typeof words === "string" &&
    typeof at === "number" &&
    (file === undefined || typeof file === "string") &&
    typeof fields === "object" &&
    fields !== null &&
    Object.values(fields).every((field) => typeof field === "string")
  );
}

/**
 * Entries on their way to the server, in the order they were made. Each is written to the browser's own storage
 * before it is sent and taken out once the server has stored or refused it, so that neither a server that is
 * away nor a page that is closed loses one.
 */
export class EntryQueue {
  private state: QueueState;
  private sending: Entry | null = null;
  private failures = 0;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly store: EntryStore,
    private readonly send: Send,
    private readonly now: () => number = Date.now,
  ) {
    this.state = { waiting: this.kept(), away: false, refused: null, stored: 0, shown: null };
  }

  /** What earlier pages left unsent, oldest first; text that is no entry is left alone. */
  private kept(): Entry[] {
    const found: Entry[] = [];
    for (let i = 0; i < this.store.length; i++) {
      const key = this.store.key(i);
      if (!key?.startsWith(prefix)) continue;
      try {
        const entry = keptEntry(JSON.parse(this.store.getItem(key) ?? ""));
        if (entry) found.push(entry);
      } catch {
        // Not written by this queue.
      }
    }
    return found.sort((a, b) => a.at - b.at);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  readonly snapshot = (): QueueState => this.state;

  private set(changes: Partial<QueueState>): void {
    this.state = { ...this.state, ...changes };
    for (const listener of this.listeners) listener();
  }

  /** Takes an entry in; one with an id that waits already is the same entry made twice. */
  enter(entry: Omit<Entry, "at">): void {
    if (this.state.waiting.some(({ id }) => id === entry.id)) return;
    const full: Entry = { ...entry, at: this.now() };
    try {
      this.store.setItem(prefix + full.id, JSON.stringify(full));
    } catch {
      // The browser's storage is full or shut: it waits in this page alone, and is sent all the same.
    }
    this.set({ waiting: [...this.state.waiting, full], refused: null });
    void this.flush();
  }

  /**
   * Takes back the last entry that waits to be sent to an address.
   * @returns false where none waits that is not on its way already
   */
  withdrawLast(to: string): boolean {
    const last = this.state.waiting.findLast((entry) => entry.to === to);
    if (!last || last === this.sending) return false;
    this.drop(last);
    return true;
  }

  private drop(entry: Entry, changes: Partial<QueueState> = {}): void {
    this.store.removeItem(prefix + entry.id);
    this.set({ waiting: this.state.waiting.filter(({ id }) => id !== entry.id), ...changes });
  }

  /** The next to be sent: the oldest, but nothing waits behind a file. */
  private next(): Entry | undefined {
    const { waiting } = this.state;
    return waiting.find(({ file }) => file === undefined) ?? waiting[0];
  }

  /** Sends what waits, one after another, until all is stored; tries again by itself while the server is away. */
  async flush(): Promise<void> {
    if (this.sending) return;
    clearTimeout(this.retry);
    for (let entry = this.next(); entry; entry = this.next()) {
      this.sending = entry;
      const answer = await this.send(entry, Math.max(0, (this.now() - entry.at) / 1000));
      if (answer === "away") {
        this.failures += 1;
        const pause = Math.min(retryMostMilliseconds, retryMilliseconds * this.failures);
        this.retry = setTimeout(() => void this.flush(), pause);
        this.set({ away: true });
        break;
      }
      this.failures = 0;
      const { id, fields, to, words } = entry;
      if ("problem" in answer)
        this.drop(entry, { away: false, refused: { ...answer, id, to, fields, words } });
      else {
        const shown = { to, page: answer.page };
        this.drop(entry, { away: false, refused: null, stored: this.state.stored + 1, shown });
      }
    }
    this.sending = null;
  }
}

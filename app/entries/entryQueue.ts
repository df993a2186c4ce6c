/** The form fields of one entry, kept in the browser until the server has stored them. */
export interface Entry {
  /** The same entry sent twice is stored once. */
  readonly id: string;
  /** Address it is posted to: `/jobs/4/entries`. */
  readonly to: string;
  readonly fields: Readonly<Record<string, string>>;
  /** The form field of the entry's file, if it has one. */
  readonly file?: string;
  /** Its text in the list of waiting entries. */
  readonly words: string;
  /** When it was entered, by this machine's clock, in milliseconds. */
  readonly at: number;
  /** Who entered it; absent while the shop has named nobody. */
  readonly by?: EnteredBy;
}

/** Whoever is signed in on a page. */
export interface EnteredBy {
  readonly id: string;
  readonly name: string;
}

/** Why an entry was refused. */
export interface Refusal {
  readonly problem: string;
  /** True if the job had changed meanwhile, so that the server keeps the entry for a person to decide. */
  readonly isKept: boolean;
}

/** What the queue shows: the waiting entries, and the server's answer to the last one. */
export interface QueueState {
  readonly waiting: readonly Entry[];
  /** Entries of people who are not signed in here now: they wait for them. */
  readonly ofOthers: readonly Entry[];
  /** True if the entries wait because whoever made them is signed out. */
  readonly signedOut: boolean;
  /** True once the server did not take an entry now, until it takes one again. */
  readonly away: boolean;
  /** Why the last entry was refused, where it was sent, and its fields; null if it was not refused. */
  readonly refused: (Refusal & Pick<Entry, "id" | "to" | "fields" | "words">) | null;
  /** Increases with every entry stored. */
  readonly stored: number;
  /** Where the last stored entry was sent, and the page the server answered with; null if there was none. */
  readonly shown: (Pick<Stored, "page" | "isPushed"> & { readonly to: string }) | null;
}

/** The part of a browser's storage the queue needs. */
export interface EntryStore {
  readonly length: number;
  key(index: number): string | null;
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
  removeItem(key: string): void;
}

/**
 * The result of sending an entry: stored, with the new page; refused, with the reason; not answered; or not accepted
 * because whoever made it is signed out.
 */
export type Answer = Stored | Refusal | "away" | "signed-out";

/** An entry that was stored, with the new page; null if that comes later. */
interface Stored {
  readonly taken: true;
  readonly page: unknown;
  /** Whether the new page is pushed, because others look at the job too. */
  readonly isPushed: boolean;
}

export type Send = (entry: Entry, ageSeconds: number) => Promise<Answer>;

const prefix = "airway:waiting:";
const retryMilliseconds = 1000;
const retryMostMilliseconds = 8000;

/** An entry as a page stored it; earlier versions stored the job's number instead of the address. */
function keptEntry(value: unknown): Entry | null {
  if (typeof value !== "object" || value === null) return null;
  const { jobId, ...kept } = value as Record<string, unknown>;
  const entry = typeof jobId === "number" ? { ...kept, to: `/jobs/${jobId}/entries` } : kept;
  return isEntry(entry) ? entry : null;
}

function isEnteredBy(value: unknown): value is EnteredBy {
  if (typeof value !== "object" || value === null) return false;
  const { id, name } = value as Record<string, unknown>;
  return typeof id === "string" && typeof name === "string";
}

function isEntry(value: Record<string, unknown>): value is Record<string, unknown> & Entry {
  const { id, to, fields, words, at, file, by } = value;
  return (
    typeof id === "string" &&
    typeof to === "string" &&
    typeof words === "string" &&
    typeof at === "number" &&
    (file === undefined || typeof file === "string") &&
    (by === undefined || isEnteredBy(by)) &&
    typeof fields === "object" &&
    fields !== null &&
    Object.values(fields).every((field) => typeof field === "string")
  );
}

/**
 * Entries on their way to the server, in the order they were made. Each is written to the browser's own storage before
 * it is sent, and removed once the server has stored or refused it, so neither an absent server nor a closed page
 * loses one.
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
    private readonly by: EnteredBy | null = null,
    private readonly now: () => number = Date.now,
  ) {
    const kept = this.kept();
    const isOwn = ({ by }: Entry): boolean => by === undefined || by.id === this.by?.id;
    this.state = {
      waiting: kept.filter(isOwn),
      ofOthers: kept.filter((entry) => !isOwn(entry)),
      signedOut: false,
      away: false,
      refused: null,
      stored: 0,
      shown: null,
    };
  }

  /** Entries that earlier pages left unsent, oldest first; text that is not an entry is ignored. */
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

  /** Adds an entry; one with the id of a waiting entry is the same entry made twice. */
  enter(entry: Omit<Entry, "at" | "by">): void {
    if (this.state.waiting.some(({ id }) => id === entry.id)) return;
    const full: Entry = { ...entry, at: this.now(), ...(this.by ? { by: this.by } : {}) };
    try {
      this.store.setItem(prefix + full.id, JSON.stringify(full));
    } catch {
      // The browser's storage is full or blocked: the entry waits in this page only, and is sent anyway.
    }
    this.set({ waiting: [...this.state.waiting, full], refused: null });
    void this.flush();
  }

  /**
   * Removes the last waiting entry for an address.
   * @returns false if none waits that is not already on its way
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

  /** The next to be sent: the oldest, except that nothing waits behind a file. */
  private next(): Entry | undefined {
    const { waiting } = this.state;
    return waiting.find(({ file }) => file === undefined) ?? waiting[0];
  }

  /**
   * Sends the waiting entries one after another until all are stored; tries again by itself while the server is away.
   */
  async flush(): Promise<void> {
    if (this.sending) return;
    clearTimeout(this.retry);
    for (let entry = this.next(); entry; entry = this.next()) {
      this.sending = entry;
      const answer = await this.send(entry, Math.max(0, (this.now() - entry.at) / 1000));
      if (answer === "away" || answer === "signed-out") {
        this.failures += 1;
        const pause = Math.min(retryMostMilliseconds, retryMilliseconds * this.failures);
        this.retry = setTimeout(() => void this.flush(), pause);
        this.set({ away: true, signedOut: answer === "signed-out" });
        break;
      }
      this.failures = 0;
      const { id, fields, to, words } = entry;
      if ("problem" in answer)
        this.drop(entry, { away: false, signedOut: false, refused: { ...answer, id, to, fields, words } });
      else {
        const shown = { to, page: answer.page, isPushed: answer.isPushed };
        this.drop(entry, {
          away: false,
          signedOut: false,
          refused: null,
          stored: this.state.stored + 1,
          shown,
        });
      }
    }
    this.sending = null;
  }
}

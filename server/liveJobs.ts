import { onReplaced, onWritten } from "@db/database.server";
import { allPeople } from "@db/people/people.server";
import { isSignedIn } from "@db/people/sessions.server";
import { lastEventOf } from "@db/repositories/lastEvent.server";
import { findSeenJob } from "@db/repositories/seenJobs.server";
import { createEventBuffer, createSession, type Session } from "better-sse";
import type { Request, Response } from "express";
import { pairedDevices } from "../app/network/devices.server";
import { placeId, placeName, type Visitor } from "../app/network/visitor.server";
import { probePageOf } from "../app/probe/probePage.server";
import { logger } from "../app/shell/log.server";

type SignedIn = Extract<Visitor, { kind: "signed-in" }>;

/** A page that shows a job. */
interface Watcher {
  /** Whether it is the probe page, to which the new page itself is pushed. */
  readonly wantsPage: boolean;
  readonly jobId: number;
  readonly visitor: SignedIn;
  readonly session: Session;
  readonly response: Response;
}

/** Somebody who was signed out, or whose device was removed, is told nothing after this long. */
const checkMilliseconds = 20_000;

/** What others call somebody who looks at a job. */
const nameOf = ({ person, place }: SignedIn): string =>
  person ? `${person.name} (${placeName(place)})` : placeName(place);

/** Whether somebody would still be let in as they were; does not count as use. */
function mayStay({ person, place }: SignedIn): boolean {
  const isIn = person !== null && isSignedIn(person.id, placeId(place));
  if (place.kind === "device") return isIn && pairedDevices().some(({ id }) => id === place.device.id);
  // A shop of one, or of nobody by name, has no sessions on its own computer.
  return isIn || allPeople().length <= 1;
}

/** What a kind of job tells its pages. */
interface Told {
  /** The number of its last change; 0 if there is no such job. */
  readonly versionOf: (jobId: number) => Promise<number>;
  /** Its probe page as it is now; null if it has none to push. */
  readonly pageOf: ((jobId: number) => Promise<{ readonly version: number }>) | null;
}

/** The pages that show jobs of one kind, whatever door they came through. */
class LiveJobs {
  private readonly watchers = new Set<Watcher>();
  /** The number of the last change that the pages of a job were told of. */
  private readonly versions = new Map<number, number>();

  constructor(private readonly told: Told) {
    onWritten(() => {
      for (const jobId of this.jobs()) this.look(jobId);
    });
    onReplaced(() => {
      for (const jobId of this.jobs()) this.lookAgain(jobId);
    });
    setInterval(() => {
      for (const watcher of this.watchers) if (!mayStay(watcher.visitor)) this.leave(watcher);
    }, checkMilliseconds).unref();
  }

  /** Tells a page about its job until it goes away. */
  async watch(jobId: number, visitor: SignedIn, request: Request, response: Response): Promise<void> {
    const session = await createSession(request, response, {
      headers: { "Cache-Control": "no-store, no-transform" },
    });
    const wantsPage = this.told.pageOf !== null && request.query.page === "probe";
    const watcher = { wantsPage, jobId, visitor, session, response };
    this.watchers.add(watcher);
    session.once("disconnected", () => this.leave(watcher));
    this.versions.set(jobId, await this.told.versionOf(jobId));
    this.tellWho(jobId);
  }

  /** Ends every connection, so that the server can stop. */
  stop(): void {
    const all = [...this.watchers];
    this.watchers.clear();
    for (const { response } of all) response.end();
  }

  /** Whether the page of a job is pushed to several, and to this visitor among them. */
  pushesTo(jobId: number, { person, place }: SignedIn): boolean {
    const here = this.watching(jobId);
    return (
      here.length > 1 &&
      here.some(
        ({ wantsPage, visitor }) =>
          wantsPage && placeId(visitor.place) === placeId(place) && visitor.person?.id === person?.id,
      )
    );
  }

  private leave(watcher: Watcher): void {
    if (!this.watchers.delete(watcher)) return;
    watcher.response.end();
    if (this.watching(watcher.jobId).length === 0) this.versions.delete(watcher.jobId);
    this.tellWho(watcher.jobId);
  }

  private watching(jobId: number): Watcher[] {
    return [...this.watchers].filter((own) => own.jobId === jobId);
  }

  private jobs(): ReadonlySet<number> {
    return new Set([...this.watchers].map((own) => own.jobId));
  }

  /** Tells the pages of a job that the shop's database was replaced; its changes are counted anew. */
  private lookAgain(jobId: number): void {
    this.told
      .versionOf(jobId)
      .then((version) => {
        this.versions.set(jobId, version);
        this.push(this.watching(jobId), { version }, "replaced");
      })
      .catch((cause: unknown) =>
        logger.error(cause, `job ${jobId}: its pages could not be told that the database was replaced`),
      );
  }

  /** Looks whether a job has changed since its pages were last told. */
  private look(jobId: number): void {
    this.tellChange(jobId).catch((cause: unknown) =>
      logger.error(cause, `job ${jobId}: its pages could not be told of a change`),
    );
  }

  private async tellChange(jobId: number): Promise<void> {
    const version = await this.told.versionOf(jobId);
    if (version <= (this.versions.get(jobId) ?? 0)) return;
    this.versions.set(jobId, version);
    const watchers = this.watching(jobId);
    const [wanting, others] = [true, false].map((wants) =>
      watchers.filter((own) => own.wantsPage === wants),
    ) as [Watcher[], Watcher[]];
    this.push(others, { version });
    // A page that is alone has most likely made the change, and then gets the new page as the answer to it.
    if (watchers.length === 1) this.push(wanting, { version });
    else if (wanting.length > 0 && this.told.pageOf) {
      const page = await this.told.pageOf(jobId);
      this.push(wanting, { version: page.version, page });
    }
  }

  private push(
    to: readonly Watcher[],
    change: { readonly version: number; readonly page?: unknown },
    event: "change" | "replaced" = "change",
  ): void {
    const open = to.filter(({ session }) => session.isConnected);
    if (open.length === 0) return;
    // Written once for all: a page is some 200 kB.
    const written = createEventBuffer().push(change, event);
    for (const { session } of open)
      session.batch(written).catch((cause: unknown) => logger.error(cause, "a change could not be pushed"));
  }

  private tellWho(jobId: number): void {
    const version = this.versions.get(jobId) ?? 0;
    const here = this.watching(jobId);
    for (const { session, visitor } of here.filter((own) => own.session.isConnected)) {
      const others = here.flatMap((own) => (own.session === session ? [] : nameOf(own.visitor)));
      const own = nameOf(visitor);
      // Two windows of one person on one device are not somebody else.
      session.push({ version, others: [...new Set(others)].filter((name) => name !== own) }, "who");
    }
  }
}

/** The pages that show a job with a circuit. */
export const liveJobs = new LiveJobs({
  versionOf: lastEventOf,
  pageOf: (jobId) => probePageOf(String(jobId)),
});

/** The pages that show a job without a diagram. */
export const liveSeenJobs = new LiveJobs({
  versionOf: async (id) => (await findSeenJob(id))?.version ?? 0,
  pageOf: null,
});

/** Answers pages that want to be told of changes to their job. */
export const watchJob =
  (live: LiveJobs) =>
  async (request: Request, response: Response): Promise<void> => {
    const { visitor } = response;
    const id = String(request.params.id);
    if (visitor?.kind !== "signed-in") response.status(401).type("text").send("Sign in first.\n");
    else if (!/^\d{1,9}$/.test(id)) response.status(404).type("text").send("There is no such job.\n");
    else await live.watch(Number(id), visitor, request, response);
  };

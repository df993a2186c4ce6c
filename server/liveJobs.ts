import { onWritten } from "@db/database.server";
import { allPeople } from "@db/people/people.server";
import { isSignedIn } from "@db/people/sessions.server";
import { lastEventOf } from "@db/repositories/lastEvent.server";
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

/** The pages that show a job, whatever door they came through. */
class LiveJobs {
  private readonly watchers = new Set<Watcher>();
  /** The number of the last change that the pages of a job were told of. */
  private readonly versions = new Map<number, number>();

  constructor() {
    onWritten(() => {
      for (const jobId of new Set([...this.watchers].map((own) => own.jobId))) this.look(jobId);
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
    const wantsPage = request.query.page === "probe";
    const watcher = { wantsPage, jobId, visitor, session, response };
    this.watchers.add(watcher);
    session.once("disconnected", () => this.leave(watcher));
    this.versions.set(jobId, await lastEventOf(jobId));
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

  /** Looks whether a job has changed since its pages were last told. */
  private look(jobId: number): void {
    this.tellChange(jobId).catch((cause: unknown) =>
      logger.error(cause, `job ${jobId}: its pages could not be told of a change`),
    );
  }

  private async tellChange(jobId: number): Promise<void> {
    const version = await lastEventOf(jobId);
    if (version <= (this.versions.get(jobId) ?? 0)) return;
    this.versions.set(jobId, version);
    const watchers = this.watching(jobId);
    const [wanting, others] = [true, false].map((wants) =>
      watchers.filter((own) => own.wantsPage === wants),
    ) as [Watcher[], Watcher[]];
    this.push(others, { version });
    // A page that is alone has most likely made the change, and then gets the new page as the answer to it.
    if (watchers.length === 1) this.push(wanting, { version });
    else if (wanting.length > 0) {
      const page = await probePageOf(String(jobId));
      this.push(wanting, { version: page.version, page });
    }
  }

  private push(to: readonly Watcher[], change: { readonly version: number; readonly page?: unknown }): void {
    const open = to.filter(({ session }) => session.isConnected);
    if (open.length === 0) return;
    // Written once for all: a page is some 200 kB.
    const written = createEventBuffer().push(change, "change");
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

/** The one list of pages that show a job. */
export const liveJobs = new LiveJobs();

/** Answers a page that wants to be told of changes to its job. */
export async function watchJob(request: Request, response: Response): Promise<void> {
  const { visitor } = response;
  const id = String(request.params.id);
  if (visitor?.kind !== "signed-in") response.status(401).type("text").send("Sign in first.\n");
  else if (!/^\d{1,9}$/.test(id)) response.status(404).type("text").send("There is no such job.\n");
  else await liveJobs.watch(Number(id), visitor, request, response);
}

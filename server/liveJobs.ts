import { onWritten } from "@db/database.server";
import { isSignedIn } from "@db/people/sessions.server";
import { lastEventOf } from "@db/repositories/lastEvent.server";
import { createSession, type Session } from "better-sse";
import type { Request, Response } from "express";
import { pairedDevices } from "../app/network/devices.server";
import { placeId, placeName, type Visitor } from "../app/network/visitor.server";
import { logger } from "../app/shell/log.server";

type SignedIn = Extract<Visitor, { kind: "signed-in" }>;

/** A page that shows a job. */
interface Watcher {
  readonly jobId: number;
  readonly visitor: SignedIn;
  readonly session: Session;
  readonly response: Response;
}

/** Writes that follow each other closely are told as one. */
const gatherMilliseconds = 30;
/** Somebody who was signed out, or whose device was removed, is told nothing after this long. */
const checkMilliseconds = 20_000;

/** What others call somebody who looks at a job. */
const nameOf = ({ person, place }: SignedIn): string =>
  person ? `${person.name} (${placeName(place)})` : placeName(place);

const mayStay = ({ person, place }: SignedIn): boolean =>
  place.kind === "device"
    ? person !== null &&
      isSignedIn(person.id, placeId(place)) &&
      pairedDevices().some(({ id }) => id === place.device.id)
    : true;

/** The pages that show a job, whatever door they came through. */
class LiveJobs {
  private readonly watchers = new Set<Watcher>();
  private gathering: NodeJS.Timeout | null = null;

  constructor() {
    onWritten(() => {
      if (this.watchers.size > 0)
        this.gathering ??= setTimeout(() => {
          this.gathering = null;
          this.tell([...this.watchers].map(({ jobId }) => jobId));
        }, gatherMilliseconds);
    });
    setInterval(() => {
      for (const { visitor, response } of this.watchers) if (!mayStay(visitor)) response.end();
    }, checkMilliseconds).unref();
  }

  /** Tells a page about its job until it goes away. */
  async watch(jobId: number, visitor: SignedIn, request: Request, response: Response): Promise<void> {
    const session = await createSession(request, response, {
      headers: { "Cache-Control": "no-store, no-transform" },
    });
    const watcher = { jobId, visitor, session, response };
    this.watchers.add(watcher);
    session.once("disconnected", () => {
      this.watchers.delete(watcher);
      this.tell([jobId]);
    });
    this.tell([jobId]);
  }

  /** Ends every connection, so that the server can stop. */
  stop(): void {
    for (const { response } of this.watchers) response.end();
  }

  private tell(jobs: readonly number[]): void {
    for (const jobId of new Set(jobs))
      lastEventOf(jobId).then(
        (version) => this.push(jobId, version),
        (cause: unknown) => logger.error(cause, `job ${jobId}: its pages could not be told of a change`),
      );
  }

  private push(jobId: number, version: number): void {
    const here = [...this.watchers].filter((own) => own.jobId === jobId);
    for (const { session, visitor } of here) {
      const others = here.flatMap((own) => (own.session === session ? [] : nameOf(own.visitor)));
      const own = nameOf(visitor);
      // Two windows of one person on one device are not somebody else.
      session.push({ version, others: [...new Set(others)].filter((name) => name !== own) }, "job");
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

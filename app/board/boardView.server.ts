import { boardGroup } from "@core/records/boardGroup";
import { backupWarning, newestVerified } from "@db/keeping/backup.server";
import { hasCircuits } from "@db/repositories/circuits.server";
import { type FollowUpDue, followUpsUntil } from "@db/repositories/followUps.server";
import { type Job, readJobs } from "@db/repositories/jobs.server";
import { openSeenJobs } from "@db/repositories/seenJobs.server";
import { demoState, shopName } from "@db/repositories/settings.server";
import { seenCarText } from "@words/seenCarWords";
import { ageText, dayAndMonth, promiseText, wallText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import type { BoardJob } from "./boardJob";
import { boardLines, isRefreshing } from "./jobLine.server";

/** A follow-up on the board. */
export interface FollowUpLine extends FollowUpDue {
  readonly day: string;
  readonly late: boolean;
}

/** The board: open jobs, jobs closed today, and follow-ups due within a week. */
export interface BoardView {
  readonly jobs: readonly BoardJob[];
  readonly followUps: readonly FollowUpLine[];
  /** Open jobs on vehicles without a diagram. */
  readonly noDiagram: readonly {
    readonly id: number;
    readonly label: string;
    readonly seen: string;
    readonly words: string;
    readonly age: string;
  }[];
  /** Jobs whose rows cannot be read. */
  readonly unreadable: readonly number[];
  /** A warning about the backups. */
  readonly backup: string | null;
  readonly refreshing: boolean;
  /** The name of the demo workshop while it is loaded; null without it. */
  readonly demo: string | null;
  /** Whether there is no circuit, so that a job cannot begin. */
  readonly emptyShelf: boolean;
}

/** Days ahead in which a follow-up is shown. */
const daysAhead = 7;
const dayMilliseconds = 86_400_000;

export async function boardView(now = new Date()): Promise<BoardView> {
  const zone = shopZone();
  const wall = wallText(now, zone);
  const today = wall.slice(0, 10);
  const lastDay = wallText(new Date(now.getTime() + daysAhead * dayMilliseconds), zone).slice(0, 10);
  const [open, closed, due, demo, name, circuits, noDiagram] = await Promise.all([
    readJobs(["probing", "part-awaited", "proof-due"]),
    // A day of the shop's zone begins less than two days before any moment of it.
    readJobs(["closed"], 200, new Date(now.getTime() - 2 * dayMilliseconds)),
    followUpsUntil(lastDay),
    demoState(),
    shopName(),
    hasCircuits(),
    openSeenJobs(),
  ]);
  const doneToday = closed.jobs.filter(
    ({ closedAt }) => closedAt && wallText(closedAt, zone).startsWith(today),
  );
  const lines = await boardLines(open.jobs);
  const shown = (job: Job): BoardJob => {
    const own = lines.get(job.id) ?? null;
    const done = job.stage === "closed";
    return {
      id: job.id,
      label: job.vehicle.label,
      model: job.vehicle.model,
      words: job.words,
      group: boardGroup({
        stage: job.stage,
        partsIn: job.partsInAt !== null,
        decided: own?.decided ?? false,
      }),
      line: done ? job.found : (own?.line ?? null),
      came: job.createdAt.toISOString(),
      age: ageText(job.createdAt, now),
      promised: job.promised,
      promise: job.promised && promiseText(job.promised, wall),
      late: !done && job.promised !== null && job.promised < wall,
      comebackOf: job.comebackOf,
    };
  };
  return {
    jobs: [...open.jobs, ...doneToday].map(shown),
    followUps: due.map((own) => ({ ...own, day: dayAndMonth(own.on), late: own.on <= today })),
    noDiagram: noDiagram.map(({ id, label, seen, words, createdAt }) => ({
      id,
      label,
      words,
      seen: seenCarText(seen),
      age: ageText(createdAt, now),
    })),
    unreadable: [...open.unreadable, ...closed.unreadable],
    backup: backupNotice(now),
    refreshing: isRefreshing(),
    demo: demo === "loaded" ? name : null,
    emptyShelf: !circuits,
  };
}

/** A new shop makes its first backup a minute after it starts, so nobody is warned before that. */
const firstBackupSeconds = 300;

function backupNotice(now: Date): string | null {
  const newest = newestVerified(now);
  return newest || process.uptime() > firstBackupSeconds ? backupWarning(newest?.at ?? null, now) : null;
}

import { type Backup, backupFile, markVerified } from "@db/keeping/backup.server";
import type { CandidateFinding } from "@db/keeping/candidate.server";
import { reportTrouble } from "../shell/log.server";
import { importer } from "./importProcess.server";

/** Restores a backup into a temporary file in another process and reads all of it; nothing of the shop changes. */
export async function lookIntoBackup(file: string): Promise<CandidateFinding> {
  const own = importer();
  try {
    const came = await own.run("lookInto", { file });
    if ("answer" in came) return came.answer;
    return { faults: [...came.problems], jobs: 0, readings: 0, newest: null };
  } finally {
    own.end();
  }
}

/** Verifies that a backup can be restored, and records the result; every page reports one that cannot. */
export async function verifyBackup({ name }: Pick<Backup, "name">): Promise<void> {
  const file = backupFile(name);
  if (!file) return;
  const { faults } = await lookIntoBackup(file);
  if (faults.length === 0) markVerified(name);
  else
    reportTrouble(
      new Error(faults.join("; ")),
      `The backup ${name} cannot be restored: ${faults[0]}. Make another one.`,
    );
}

import { type Backup, backUp, backupFile, copyToSecondFolder, listBackups } from "@db/keeping/backup.server";
import type { CandidateFinding } from "@db/keeping/candidate.server";
import { dropIncoming, incomingFile, incomingFinding } from "@db/keeping/incoming.server";
import { restore } from "@db/keeping/restore.server";
import { everything } from "@db/recordQuery";
import { countRecords } from "@db/repositories/records.server";
import { shopName } from "@db/repositories/settings.server";
import { storageTrouble } from "@db/storageTrouble";
import { data, Form, useNavigation } from "react-router";
import { z } from "zod";
import { FileChooser } from "../importing/FileChooser";
import { isWritingRecords } from "../importing/recordsImport.server";
import { lookIntoBackup, verifyBackup } from "../importing/verifyBackup.server";
import { type Visitor, visitorContext } from "../network/visitor.server";
import { ownPinRefusal } from "../people/pinCheck.server";
import { RecordsPage } from "../records/RecordsPage";
import { logger } from "../shell/log.server";
import { OwnPin } from "../shell/OwnPin";
import { sentForm } from "../shell/sentForm.server";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/keeping";

export const meta: Route.MetaFunction = () => [{ title: "Backup and restore · Airway" }];

const kilobytes = (bytes: number): string =>
  bytes < 2e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

export async function loader() {
  const zone = shopZone();
  return {
    backups: listBackups().map(({ name, at, bytes, isVerified }) => ({
      name,
      isVerified,
      when: dayText(at, zone),
      size: kilobytes(bytes),
    })),
    incoming: incomingFinding(),
    jobs: await countRecords(everything),
    shop: await shopName(),
  };
}

/** What confirms that the shop's data is replaced: its name, and the PIN of whoever is signed in. */
const confirmed = { shop: z.string().max(200), pin: z.string().max(64).default("") };

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("back-up") }),
  z.object({ intent: z.literal("try"), name: z.string().max(80) }),
  z.object({ intent: z.literal("restore"), name: z.string().max(80), ...confirmed }),
  z.object({ intent: z.literal("take"), ...confirmed }),
  z.object({ intent: z.literal("drop") }),
]);

/** The result of an action: what was found, what was done, what is wrong. */
interface Outcome {
  readonly tried?: { readonly name: string; readonly finding: CandidateFinding };
  readonly done?: string;
  /** Why nothing was done. */
  readonly problems?: readonly string[];
  /** What failed although the rest was done. */
  readonly warning?: string;
}

const wrong = (problems: readonly string[]) => data<Outcome>({ problems }, { status: 400 });

/** Copies a backup to the second folder. A failure there is a warning, because the backup itself exists. */
const copied = (backup: Backup): Promise<Pick<Outcome, "warning">> =>
  copyToSecondFolder(backup).then(
    () => ({}),
    (thrown: unknown) => ({ warning: (thrown as Error).message }),
  );

async function takeIn(file: string, sent: { shop: string; pin: string }, visitor: Visitor) {
  const name = await shopName();
  if (sent.shop.trim().toLowerCase() !== name.trim().toLowerCase())
    return wrong([`to confirm, type the name of the shop: ${name}`]);
  const refused = await ownPinRefusal(visitor, sent.pin);
  if (refused) return wrong([refused.problem.replace(/\.$/, "")]);
  if (isWritingRecords()) return wrong(["records are being imported; wait until they are saved"]);
  try {
    const { name } = await restore(file, new Date());
    return { done: `Restored. The previous database is kept as ${name}.` };
  } catch (thrown) {
    return wrong([(thrown as Error).message]);
  }
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) return wrong(["That cannot be read."]);
  const sent = parsed.data;
  switch (sent.intent) {
    case "back-up": {
      try {
        const backup = await backUp(new Date());
        verifyBackup(backup).catch((cause: unknown) => logger.error(cause, "a backup could not be checked"));
        return { done: `Backed up: ${backup.name}.`, ...(await copied(backup)) };
      } catch (thrown) {
        return wrong([storageTrouble(thrown) ?? (thrown as Error).message]);
      }
    }
    case "try":
    case "restore": {
      const file = backupFile(sent.name);
      if (!file) return wrong(["There is no such backup."]);
      if (sent.intent === "try") return { tried: { name: sent.name, finding: await lookIntoBackup(file) } };
      return takeIn(file, sent, context.get(visitorContext));
    }
    case "take": {
      const file = incomingFile();
      if (!file) return wrong(["No uploaded file is waiting."]);
      const outcome = await takeIn(file, sent, context.get(visitorContext));
      if ("done" in outcome) dropIncoming();
      return outcome;
    }
    case "drop":
      dropIncoming();
      return { done: "The file was discarded." };
  }
}

export default function Keeping({ loaderData, actionData }: Route.ComponentProps) {
  const { backups, incoming, jobs, shop } = loaderData;
  const outcome: Outcome = actionData ?? {};
  const busy = useNavigation().state !== "idle";
  return (
    <RecordsPage title="Backup and restore" width="max-w-4xl">
      {outcome.done && (
        <p role="status" className="sheet-card p-3">
          {outcome.done}
        </p>
      )}
      {outcome.warning && (
        <p role="alert" className="text-danger">
          {outcome.warning}.
        </p>
      )}
      {outcome.problems && (
        <div role="alert" className="text-danger">
          Nothing changed: {outcome.problems.join("; ")}.
        </div>
      )}
      <Backups busy={busy} backups={backups} outcome={outcome} jobs={jobs} shop={shop} />
      <Bundle busy={busy} incoming={incoming} jobs={jobs} shop={shop} />
    </RecordsPage>
  );
}

/** To confirm a restore, type the shop's name, and your PIN where the shop has people. */
function ShopConfirmed({ shop }: { shop: string }) {
  return (
    <>
      <label className="grid justify-self-start gap-0.5 text-base text-soft">
        To confirm, type the name of the shop: {shop}
        <input name="shop" required autoComplete="off" className="field text-ink" />
      </label>
      <OwnPin />
    </>
  );
}

interface TriedProps {
  readonly name: string;
  readonly finding: NonNullable<Outcome["tried"]>["finding"];
  readonly jobs: number;
  readonly shop: string;
  readonly busy: boolean;
}

/** What a restore would change, before it is done. */
function Tried({ name, finding, jobs, shop, busy }: TriedProps) {
  if (finding.faults.length > 0)
    return (
      <p role="alert" className="w-full text-danger">
        It cannot be restored: {finding.faults.join("; ")}.
      </p>
    );
  return (
    <Form method="post" className="sheet-card grid w-full gap-2 p-3">
      <input type="hidden" name="name" value={name} />
      <p role="status">
        Checked, nothing changed. It is sound and holds {finding.jobs} jobs and {finding.readings} readings.
        The shop has {jobs} jobs now. They are backed up before they are replaced.
      </p>
      <ShopConfirmed shop={shop} />
      <button type="submit" name="intent" value="restore" className="btn justify-self-start" disabled={busy}>
        Restore
      </button>
    </Form>
  );
}

interface BackupsProps {
  readonly busy: boolean;
  readonly backups: Route.ComponentProps["loaderData"]["backups"];
  readonly outcome: Outcome;
  readonly jobs: Route.ComponentProps["loaderData"]["jobs"];
  readonly shop: string;
}

/** Backups, and restoring one. */
function Backups({ busy, backups, outcome, jobs, shop }: BackupsProps) {
  return (
    <section aria-labelledby="backups" className="grid gap-2">
      <h2 id="backups" className="text-lg font-bold">
        Backups
      </h2>
      <p className="max-w-prose text-base text-soft">
        Backups are made every night and whenever you ask. Airway keeps all from the last day, one a day for a
        week, one a week for five weeks and one a month for a year. They are in the data folder, and also in
        AIRWAY_BACKUP_FOLDER if that is set. Put that folder on another disk.
      </p>
      <Form method="post" className="flex flex-wrap gap-3">
        <button type="submit" name="intent" value="back-up" className="btn btn-main" disabled={busy}>
          Back up now
        </button>
      </Form>
      {backups.length === 0 && <p>No backups yet.</p>}
      <ul className="divide-y divide-rule border-y border-rule empty:hidden">
        {backups.map(({ name, when, size, isVerified }) => (
          <li key={name} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1" data-backup={name}>
            <span className="grow">
              {when}{" "}
              <span className="text-soft">
                {size}
                {isVerified ? ", verified" : ", not verified yet"}
              </span>
            </span>
            <a href={`/records/keeping/${name}`} download className="btn px-3 text-base">
              Download
            </a>
            <Form method="post" className="contents">
              <input type="hidden" name="name" value={name} />
              <button type="submit" name="intent" value="try" className="btn px-3 text-base" disabled={busy}>
                Check it
              </button>
            </Form>
            {outcome.tried?.name === name && (
              <Tried name={name} finding={outcome.tried.finding} jobs={jobs} shop={shop} busy={busy} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface BundleProps {
  readonly busy: boolean;
  readonly incoming: Route.ComponentProps["loaderData"]["incoming"];
  readonly jobs: Route.ComponentProps["loaderData"]["jobs"];
  readonly shop: string;
}

/** Everything as one file, exported and imported. */
function Bundle({ busy, incoming, jobs, shop }: BundleProps) {
  return (
    <section aria-labelledby="bundle" className="grid gap-2">
      <h2 id="bundle" className="text-lg font-bold">
        Export the whole shop
      </h2>
      <p className="max-w-prose text-base text-soft">
        One zip with every table as lines of JSON and every photo and recording as a file. Read it with other
        tools, or import it into another Airway.
      </p>
      <p>
        <a href="/records/keeping/airway-shop.zip" download className="btn">
          Export shop
        </a>
      </p>
      <FileChooser
        label="Import a bundle or a backup file"
        accept=".zip,.sqlite"
        disabled={busy}
        actions={[{ words: "Check the file", to: "/records/keeping/in" }]}
      />
      {incoming && (
        <Form method="post" className="sheet-card grid gap-2 p-3">
          <p>
            It holds {incoming.jobs} jobs and {incoming.readings} readings. The shop has {jobs} jobs now. They
            are backed up before they are replaced.
          </p>
          <ShopConfirmed shop={shop} />
          <p className="flex flex-wrap gap-3">
            <button type="submit" name="intent" value="take" className="btn" disabled={busy}>
              Replace the shop with it
            </button>
            <button type="submit" name="intent" value="drop" formNoValidate className="btn" disabled={busy}>
              Discard it
            </button>
          </p>
        </Form>
      )}
    </section>
  );
}

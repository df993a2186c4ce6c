import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import { circuitFamily } from "@core/solve/checks/circuitFamily";
import { circuitFindings } from "@core/solve/checks/circuitFinding";
import { addCircuitNote, circuitNotesOf, deleteCircuitNote } from "@db/repositories/circuitNotes.server";
import { findCircuit, versionsOf } from "@db/repositories/circuits.server";
import { beginDraft } from "@db/repositories/drafts.server";
import { findJob, listJobs, moveJob } from "@db/repositories/jobs.server";
import { circuitFindingWords, familyText } from "@words/circuitWords";
import { useState } from "react";
import { data, Form, Link, redirect } from "react-router";
import { z } from "zod";
import { healthyView } from "../probe/probeSheetView.server";
import { firstSetup, HealthySheet, settingOf } from "../shelf/HealthySheet";
import { Findings, ImportForm } from "../shelf/ImportForm";
import { circuitFrom, importOrPreview } from "../shelf/importCircuit.server";
import { weighMove } from "../shelf/jobMove.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { dayText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/shelfCircuit";

/** The newest version of the address's circuit; answers 404 if the shelf has none. */
async function newestOf(id: string) {
  const versions = await versionsOf(id);
  const [newest] = versions;
  const circuit = newest ? await findCircuit(newest.rowId) : null;
  if (!newest || !circuit) throw data("There is no such circuit.", { status: 404 });
  return { circuit, newest, versions };
}

export async function loader({ params }: Route.LoaderArgs) {
  const { circuit, newest, versions } = await newestOf(params.id);
  // Only looking at a circuit does not require compilation.
  const built = buildNetlist(circuit, { lumpWires: true });
  if (!built.ok) throw new Error(built.problems.map(problemText).join("; "));
  const netlist = built.value;
  const zone = shopZone();
  const rows = new Set(versions.map(({ rowId }) => rowId));
  const notes = await circuitNotesOf(circuit.id);
  const jobs = (await listJobs()).filter(({ circuitId }) => rows.has(circuitId));
  return {
    ...healthyView(netlist),
    shelfId: circuit.id,
    rowId: newest.rowId,
    family: familyText(circuitFamily(netlist)),
    findings: circuitFindingWords(circuitFindings(netlist)),
    version: newest.version,
    versions: versions.map(({ version, createdAt }) => ({ version, since: dayText(createdAt, zone) })),
    notes: notes.map(({ id, words, takenAt, struckAt }) => ({
      id,
      words,
      since: dayText(takenAt, zone),
      struck: struckAt !== null,
    })),
    jobs: await Promise.all(
      jobs.map(async (job) => ({
        id: job.id,
        vehicle: `${job.vehicle.model}, ${job.vehicle.label}`,
        move:
          job.circuitId !== newest.rowId && job.stage === "probing" ? await weighMove(job, circuit) : null,
      })),
    ),
    token: randomId(),
  };
}

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.enum(["preview", "store"]),
    text: z.string().min(1).max(240_000),
    anyway: z.literal("yes").optional(),
  }),
  z.object({ intent: z.literal("change"), id: z.uuid() }),
  z.object({ intent: z.literal("note"), id: z.uuid(), words: z.string().trim().min(1).max(1000) }),
  z.object({ intent: z.literal("strike"), id: z.uuid(), struck: z.enum(["yes", "no"]) }),
  z.object({ intent: z.literal("move"), job: z.coerce.number().int().positive() }),
]);

export async function action({ params, request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  const { circuit, newest, versions } = await newestOf(params.id);
  if (!parsed.success)
    return { text: "", problems: ["That could not be read: nothing was sent, or too much."] };
  const sent = parsed.data;
  switch (sent.intent) {
    case "change": {
      const { id, title, steering } = circuit;
      const name = { id, title, ...(steering ? { steering } : {}) };
      await beginDraft(sent.id, name, { kind: "circuit", circuit });
      throw redirect(`/trace/${sent.id}`);
    }
    case "note":
      await addCircuitNote(circuit.id, { id: sent.id, words: sent.words, takenAt: new Date() });
      return undefined;
    case "strike":
      await deleteCircuitNote(circuit.id, sent.id, sent.struck === "yes" ? new Date() : null);
      return undefined;
    case "move": {
      const rows = versions.map(({ rowId }) => rowId);
      const job = await findJob(sent.job);
      if (!job || !rows.includes(job.circuitId))
        return { text: "", problems: ["That job is not on this circuit."] };
      const move = await weighMove(job, circuit);
      if ("problems" in move) return { text: "", problems: move.problems };
      const refused = await moveJob(job.id, rows, newest.rowId);
      if (refused)
        return { text: "", problems: ["Only a job that is being probed moves to another circuit."] };
      throw redirect(`/jobs/${job.id}/probe`);
    }
    case "preview":
    case "store": {
      const { intent, text, anyway } = sent;
      const read = circuitFrom(text, circuit);
      if ("problems" in read) return { text, problems: read.problems };
      if (read.value.id !== circuit.id)
        return { text, problems: [`id: this file is ${read.value.id}; import it on the shelf page instead`] };
      const outcome = await importOrPreview(read.value, {
        store: intent === "store",
        anyway: anyway === "yes",
      });
      if (outcome === "stored") throw redirect(`/shelf/${circuit.id}`);
      return { text, ...outcome };
    }
  }
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.circuit.title ?? "Circuit"} · Airway` },
];

export default function ShelfCircuit({ loaderData, actionData }: Route.ComponentProps) {
  const { circuit, shelfId, family, findings, version, versions, notes, jobs } = loaderData;
  const [setup, setSetup] = useState(firstSetup);
  const setting = settingOf(circuit, setup);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-6xl grow content-start gap-4 p-5">
        <CircuitHeader
          circuit={circuit}
          family={family}
          shelfId={shelfId}
          version={version}
          loaderData={loaderData}
        />
        <section aria-label="The healthy circuit" className="grid gap-2">
          <HealthySheet
            view={loaderData}
            setup={setup}
            onSetup={setSetup}
            height="h-[36rem] max-md:h-[60vh]"
          />
        </section>
        <section aria-labelledby="checks">
          <h2 id="checks" className="text-lg font-bold">
            Plausibility check
          </h2>
          <Findings findings={findings} />
        </section>
        <CircuitNotes notes={notes} loaderData={loaderData} />
        <CircuitExports shelfId={shelfId} setting={setting} />
        <section aria-labelledby="in">
          <h2 id="in" className="text-lg font-bold">
            Import a new version
          </h2>
          <p className="mb-2 text-base text-soft">
            {versions.map((own) => `Version ${own.version} of ${own.since}`).join(" · ")}. Jobs keep the
            version they started with until you move them.
          </p>
          <ImportForm
            answer={actionData}
            hint="Drop or paste a changed file or wire list of this circuit here"
          />
        </section>
        {jobs.length > 0 && <CircuitJobs jobs={jobs} version={version} />}
      </main>
    </div>
  );
}

interface CircuitHeaderProps {
  readonly circuit: Route.ComponentProps["loaderData"]["circuit"];
  readonly family: Route.ComponentProps["loaderData"]["family"];
  readonly shelfId: Route.ComponentProps["loaderData"]["shelfId"];
  readonly version: Route.ComponentProps["loaderData"]["version"];
  readonly loaderData: Route.ComponentProps["loaderData"];
}

/** The circuit's name and its actions. */
function CircuitHeader({ circuit, family, shelfId, version, loaderData }: CircuitHeaderProps) {
  return (
    <header>
      <p className="text-base">
        <Link to="/shelf" className="underline">
          Circuit shelf
        </Link>
      </p>
      <h1 className="text-2xl font-bold">{circuit.title}</h1>
      <p className="text-base text-soft">
        {family} · <code className="figures">{shelfId}</code>, version {version}
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        <Link to={`/trace?from=${encodeURIComponent(loaderData.rowId)}`} className="btn">
          Start another vehicle from it
        </Link>
        <Form method="post">
          <input type="hidden" name="id" value={loaderData.token} />
          <button type="submit" name="intent" value="change" className="btn">
            Edit circuit
          </button>
        </Form>
        <Link to={`/shelf/${shelfId}/way`} className="btn">
          Access steps
        </Link>
        <Link to={`/jobs/new?circuit=${encodeURIComponent(loaderData.rowId)}`} className="btn">
          New job on it
        </Link>
      </div>
    </header>
  );
}

interface CircuitNotesProps {
  readonly notes: Route.ComponentProps["loaderData"]["notes"];
  readonly loaderData: Route.ComponentProps["loaderData"];
}

/** Notes for the next person at this circuit. */
function CircuitNotes({ notes, loaderData }: CircuitNotesProps) {
  return (
    <section aria-labelledby="notes">
      <h2 id="notes" className="text-lg font-bold">
        Notes for the next person
      </h2>
      <ul className="mt-1 text-base">
        {notes.map(({ id, words, since, struck }) => (
          <li key={id} data-note={id} className="flex items-center gap-3 border-t border-rule">
            <span className={`grow whitespace-pre-wrap ${struck ? "text-soft line-through" : ""}`}>
              {words}
            </span>
            <span className="text-soft">{since}</span>
            <Form method="post">
              <input type="hidden" name="intent" value="strike" />
              <input type="hidden" name="id" value={id} />
              <button
                type="submit"
                name="struck"
                value={struck ? "no" : "yes"}
                className="min-h-11 px-1 underline"
              >
                {struck ? "put back" : "strike"}
              </button>
            </Form>
          </li>
        ))}
      </ul>
      <Form method="post" className="mt-2 flex flex-wrap items-end gap-2" key={loaderData.token}>
        <input type="hidden" name="intent" value="note" />
        <input type="hidden" name="id" value={loaderData.token} />
        <label className="grid grow gap-1 text-base text-soft">
          Such as where the bad screw is, what the plug's tab looks like, or a part number
          <textarea name="words" required maxLength={1000} rows={2} className="field w-full text-ink" />
        </label>
        <button type="submit" className="btn">
          Save note
        </button>
      </Form>
    </section>
  );
}

interface CircuitExportsProps {
  readonly shelfId: Route.ComponentProps["loaderData"]["shelfId"];
  readonly setting: string;
}

/** Formats to export the circuit in. */
function CircuitExports({ shelfId, setting }: CircuitExportsProps) {
  return (
    <section aria-labelledby="out">
      <h2 id="out" className="text-lg font-bold">
        Export
      </h2>
      <p className="mt-1 flex flex-wrap gap-x-5 text-base">
        <a href={`/shelf/${shelfId}/file/json`} download className="underline">
          airway-circuit file
        </a>
        <a href={`/shelf/${shelfId}/file/csv`} download className="underline">
          wire list (CSV)
        </a>
        <a
          href={`/shelf/${shelfId}/file/cir?setting=${encodeURIComponent(setting)}`}
          download
          className="underline"
        >
          ngspice netlist on {setting}
        </a>
      </p>
    </section>
  );
}

interface CircuitJobsProps {
  readonly jobs: Route.ComponentProps["loaderData"]["jobs"];
  readonly version: Route.ComponentProps["loaderData"]["version"];
}

/** Open jobs on older versions of the circuit, and moving them to the newest. */
function CircuitJobs({ jobs, version }: CircuitJobsProps) {
  return (
    <section aria-labelledby="jobs">
      <h2 id="jobs" className="text-lg font-bold">
        Jobs on it
      </h2>
      <ul className="mt-1 text-base">
        {jobs.map(({ id, vehicle, move }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 border-t border-rule" data-job={id}>
            <Link to={`/jobs/${id}/probe`} className="grow py-2 underline">
              {vehicle}, job {id}
            </Link>
            {move && "before" in move && (
              <>
                <span className="text-soft">
                  now {move.before}; on version {version} {move.after}
                </span>
                <Form method="post">
                  <input type="hidden" name="intent" value="move" />
                  <button type="submit" name="job" value={id} className="min-h-11 px-1 underline">
                    Move to version {version}
                  </button>
                </Form>
              </>
            )}
            {move && "problems" in move && (
              <span className="text-soft">cannot be moved: {move.problems.join("; ")}</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

import { tableJobs, whatChanged } from "@core/diagnose/belief/learnedPrior";
import { repairDefaults } from "@core/money/stoppingCosts";
import { learntRepairs } from "@core/records/learntRepairs";
import { familyName } from "@core/solve/checks/circuitFamily";
import { minutesText } from "@core/units/wording";
import { findCircuit, listCircuits } from "@db/repositories/circuits.server";
import {
  closureOf,
  faultCounts,
  lessons,
  measuredRepairs,
  setCounted,
} from "@db/repositories/closures.server";
import { undoSecondLook } from "@db/repositories/secondLooks.server";
import { learningOn, setLearning } from "@db/repositories/settings.server";
import { familyNameText } from "@words/circuitWords";
import { faultLabelWords, kindWords } from "@words/partName";
import { data, Form, Link } from "react-router";
import { z } from "zod";
import { engineFor } from "../engine/engine.server";
import { RecordsPage } from "../records/RecordsPage";
import { SecondLooks } from "../records/SecondLooks";
import { lookAgain, secondLookView } from "../records/secondLook.server";
import { sentForm } from "../shell/sentForm.server";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import { Details } from "../ui/Details";
import { Fold } from "../ui/Fold";
import type { Route } from "./+types/learnt";

export const meta: Route.MetaFunction = () => [{ title: "What the shop has learned · Airway" }];

const linesShown = 24;
const lessonsShown = 30;

export async function loader({ request }: Route.LoaderArgs) {
  const circuits = await listCircuits();
  const asked = new URL(request.url).searchParams.get("circuit");
  const line = circuits.find(({ rowId }) => rowId === asked) ?? circuits[0];
  const circuit = line ? await findCircuit(line.rowId) : null;
  const engine = circuit ? await engineFor(circuit) : null;
  const family = engine ? familyName(engine.netlist) : "";
  const [{ counts, ofFamily }, on, repairs, latest, looks] = await Promise.all([
    faultCounts(family),
    learningOn(),
    measuredRepairs(),
    lessons(lessonsShown),
    secondLookView(),
  ]);
  const changed = engine ? whatChanged(engine, counts, ofFamily) : [];
  const jobs = (of: readonly { n: number }[]): number => of.reduce((sum, { n }) => sum + n, 0);
  const zone = shopZone();
  return {
    on,
    looks,
    family: engine ? familyNameText(family) : "",
    circuit: line?.rowId ?? "",
    circuits: circuits.map(({ rowId, title }) => ({ id: rowId, title })),
    jobs: { family: jobs(ofFamily), others: jobs(counts) },
    changed: changed
      .sort((a, b) => Math.abs(b.share - b.before) - Math.abs(a.share - a.before))
      .slice(0, linesShown)
      .map((own) => ({ ...own, words: faultLabelWords(own.kind, own.mode) })),
    repairs: learntRepairs(repairDefaults, repairs).map((own) => ({ ...own, words: kindWords(own.kind) })),
    lessons: latest.map(({ jobId, kind, mode, closedAt, counted }) => ({
      jobId,
      counted,
      words: faultLabelWords(kind, mode),
      listed: kind !== "unknown",
      when: dayText(closedAt, zone),
    })),
  };
}

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("learning"), on: z.enum(["yes", "no"]) }),
  z.object({
    intent: z.literal("count"),
    job: z.coerce.number().int().positive(),
    counted: z.enum(["yes", "no"]),
  }),
  z.object({ intent: z.literal("look-again") }),
  z.object({
    intent: z.literal("undo-look"),
    job: z.coerce.number().int().positive(),
    undone: z.enum(["yes", "no"]),
  }),
]);

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  const sent = parsed.data;
  if (sent.intent === "learning") {
    await setLearning(sent.on === "yes");
    return { done: true };
  }
  if (sent.intent === "look-again") {
    await lookAgain();
    return { done: true };
  }
  if (!(await closureOf(sent.job))) throw data("That job is not closed.", { status: 404 });
  if (sent.intent === "undo-look") {
    await undoSecondLook(sent.job, sent.undone === "yes" ? new Date() : null);
    return { done: true };
  }
  await setCounted(sent.job, sent.counted === "yes");
  return { done: true };
}

const share = (p: number): string => `${(100 * p).toFixed(1)} %`;

export default function Learnt({ loaderData }: Route.ComponentProps) {
  const { on, family, circuit, circuits, jobs, changed, repairs } = loaderData;
  return (
    <RecordsPage title="What the shop has learned" width="max-w-6xl">
      <Form method="post" className="sheet-card flex flex-wrap items-center gap-3 p-4">
        <input type="hidden" name="intent" value="learning" />
        <p className="max-w-prose">
          {on
            ? "The shop's own proven jobs adjust the starting odds of every job."
            : "Learning is off. Every job starts with the odds of Airway's table. The counts are kept."}
        </p>
        <button type="submit" name="on" value={on ? "no" : "yes"} className="btn">
          {on ? "Turn learning off" : "Turn learning on"}
        </button>
      </Form>
      <Form className="flex min-w-0 flex-wrap items-end gap-2">
        <label className="grid min-w-0 grow gap-0.5 text-base text-soft md:grow-0">
          Circuit
          <select name="circuit" defaultValue={circuit} className="field w-full text-ink md:w-96">
            {circuits.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn">
          Show
        </button>
      </Form>
      <FaultOdds family={family} jobs={jobs} changed={changed} />
      <RepairMinutes repairs={repairs} />
      <SecondLooks looks={loaderData.looks} />
      <Lessons lessons={loaderData.lessons} />
    </RecordsPage>
  );
}

function Lessons({ lessons: own }: { lessons: Route.ComponentProps["loaderData"]["lessons"] }) {
  return (
    <section aria-labelledby="lessons">
      <h2 id="lessons" className="text-lg font-bold">
        Jobs it learned from
      </h2>
      <p className="max-w-prose text-base text-soft">
        Only jobs that passed the final check count, and only faults of parts in the circuit. You can stop a
        job from counting, or count it again.
      </p>
      {own.length === 0 ? (
        <p className="mt-2 text-base">No job is closed yet.</p>
      ) : (
        <ul className="mt-2 divide-y divide-rule border-y border-rule">
          {own.map(({ jobId, words, when, counted, listed }) => (
            <li
              key={jobId}
              className="flex flex-wrap items-center gap-x-3 py-1 text-base"
              data-lesson={jobId}
            >
              <Link to={`/jobs/${jobId}/close`} className="inline-flex min-h-11 items-center underline">
                job {jobId}
              </Link>
              <span className="grow">
                {when} · {words}
                {!counted && <b> · not counted</b>}
              </span>
              {listed && (
                <Form method="post" preventScrollReset>
                  <input type="hidden" name="intent" value="count" />
                  <input type="hidden" name="job" value={jobId} />
                  <button
                    type="submit"
                    name="counted"
                    value={counted ? "no" : "yes"}
                    className="btn px-3 text-base"
                    aria-label={counted ? `Stop counting job ${jobId}` : `Count job ${jobId}`}
                  >
                    {counted ? "Stop counting" : "Count again"}
                  </button>
                </Form>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface FaultOddsProps {
  readonly family: Route.ComponentProps["loaderData"]["family"];
  readonly jobs: Route.ComponentProps["loaderData"]["jobs"];
  readonly changed: Route.ComponentProps["loaderData"]["changed"];
}

/** The odds of each fault, before and after the shop's own counts. */
function FaultOdds({ family, jobs, changed }: FaultOddsProps) {
  const proven = changed.filter(({ n }) => n > 0);
  return (
    <section aria-labelledby="odds" className="overflow-x-auto">
      <h2 id="odds" className="text-lg font-bold">
        Starting odds of each fault: {family}
      </h2>
      <p className="max-w-prose text-base text-soft">
        Airway's table counts as {tableJobs} jobs. To it are added {jobs.others} jobs on other circuit
        families, then {jobs.family} on this one. A few jobs change the odds little, many jobs change them a
        lot.
      </p>
      <OddsTable faults={proven.length > 0 ? proven : changed.slice(0, firstShown)} />
      <Fold title={`All ${changed.length} faults`} className="mt-2 max-w-3xl">
        <OddsTable faults={changed} />
      </Fold>
    </section>
  );
}

/** Faults shown at once where the shop has proven none yet. */
const firstShown = 8;

/** Faults with their odds in the table and now. */
const OddsTable = ({ faults }: { faults: FaultOddsProps["changed"] }) => (
  <table className="table-cards mt-2 w-full max-w-3xl text-left text-base">
    <thead>
      <tr>
        <th scope="col">Fault</th>
        <th scope="col" className="pl-4 text-right">
          proven in this shop
        </th>
        <th scope="col" className="pl-4 text-right">
          table
        </th>
        <th scope="col" className="pl-4 text-right">
          now
        </th>
        <th scope="col" className="pl-4 text-right">
          uncertainty
        </th>
      </tr>
    </thead>
    <tbody>
      {faults.map((own) => (
        <tr key={`${own.kind} ${own.mode}`} className="border-t border-rule">
          <th scope="row" className="py-1 font-normal max-md:font-semibold">
            {own.words}
          </th>
          <td data-label="proven in this shop" className="figures pl-4 text-right whitespace-nowrap">
            {own.n}
          </td>
          <td data-label="table" className="figures pl-4 text-right whitespace-nowrap">
            {share(own.before)}
          </td>
          <td data-label="now" className="figures pl-4 text-right whitespace-nowrap">
            {Math.abs(own.share - own.before) < 0.0005 ? "" : own.share > own.before ? "↑ " : "↓ "}
            {share(own.share)}
          </td>
          <td data-label="uncertainty" className="figures pl-4 text-right whitespace-nowrap">
            ± {share(own.deviation)}
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);

interface RepairMinutesProps {
  readonly repairs: Route.ComponentProps["loaderData"]["repairs"];
}

/** Minutes that repairs took. */
function RepairMinutes({ repairs }: RepairMinutesProps) {
  return (
    <section aria-labelledby="minutes">
      <h2 id="minutes" className="text-lg font-bold">
        Repair times
      </h2>
      {repairs.length === 0 ? (
        <p className="text-base text-soft">
          No times measured yet. Tick the removal and refitting steps, and close the job.
        </p>
      ) : (
        <ul className="text-base">
          {repairs.map(({ kind, words, before, minutes, jobs: n, sum }) => (
            <li key={kind}>
              {words}: {minutesText(minutes)} instead of {minutesText(before)}, from {n}{" "}
              {n === 1 ? "job" : "jobs"}
              <Details>{sum}</Details>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

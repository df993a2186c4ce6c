import { faultLabel } from "@core/diagnose/belief/learnedPrior";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { sameParts, theCar } from "@core/fault/repair";
import { percent } from "@core/units/wording";
import { awaitParts, partsFitted, reopen } from "@db/repositories/jobs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { customerVerdict } from "@words/customerVerdict";
import { repairName } from "@words/partName";
import { plainFault } from "@words/plainFault";
import { reasonFigure, reasonText } from "@words/reasonWords";
import { verdictName, verdictTitle } from "@words/verdictTitle";
import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { failedPath } from "../close/faultSheet.server";
import { useSharedJob } from "../entries/useSharedJob";
import { diagnosisOf } from "../job/diagnosis.server";
import { intoJob, type WriteToJob } from "../job/intoJob.server";
import { type JobView, jobAt, jobViewAt } from "../job/jobView.server";
import { NextStep } from "../job/NextStep";
import { takeArrival } from "../job/takeArrival.server";
import { verdictThen } from "../job/verdictThen.server";
import { wrongPartAddress } from "../parts/jobMatches.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { priceText } from "../text/money";
import { Details } from "../ui/Details";
import type { Route } from "./+types/verdict";

const form = z.object({
  intent: z.enum(["await", "arrived", "not-arrived", "fitted", "reopen"]),
  parts: z.string().max(200).default(""),
});

export async function loader({ params, request }: Route.LoaderArgs) {
  const view = await jobViewAt(params.id, request.signal);
  const { job, circuit } = view;
  const diagnosis = diagnosisOf(view);
  const { suspects, verdict } = diagnosis;
  const { currency, hourMinor, comebackMinor } = await shopTerms();
  const picture = await failedPath(view, suspects[0]?.fault ?? null, verdict.p);
  return {
    id: job.id,
    version: view.version,
    money: { currency, hourMinor, comebackMinor },
    picture,
    stage: job.stage,
    partsIn: job.partsInAt !== null,
    fitted: job.fitted ? repairName(circuit, job.fitted) : null,
    verdict: {
      ...verdict,
      because: verdict.because.map((reason) => reasonText(circuit, reason)),
      figures: verdict.because.flatMap((reason) => reasonFigure(reason) ?? []),
      name: verdictName(circuit, diagnosis),
      title: verdictTitle(circuit, diagnosis),
      customer: forCustomer(view, diagnosis),
      killer: verdict.killedBy ? repairName(circuit, [verdict.killedBy]) : null,
      check: verdict.alsoCheck.length > 0 ? repairName(circuit, verdict.alsoCheck) : null,
    },
    hot: verdict.replace.some((id) => circuit.parts.find((part) => part.id === id)?.kind === "resistor"),
    burnt: verdict.replace.some((id) => circuit.connectors.some((connector) => connector.id === id)),
  };
}

/** The verdict in words for the customer; null while nothing on the list is named. */
function forCustomer({ engine }: JobView, { suspects, verdict }: Diagnosis): string | null {
  const fault = suspects.find(({ repair }) => sameParts(repair.parts, verdict.replace))?.fault;
  const variant = engine.variants.find(({ id }) => id === fault);
  if (!variant) return null;
  const { kind, mode } = faultLabel(engine, variant);
  return customerVerdict(verdict, plainFault(kind, mode));
}

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success) throw data("That decision could not be read. Load the page again.", { status: 400 });
  const { intent, parts: text } = parsed.data;
  const now = new Date();
  /**
   * The next page after a decision; if the job no longer takes it, the verdict again, with the decision listed above
   * it.
   */
  const decided = async (words: string, write: WriteToJob, next: string) => {
    const address = `/jobs/${job.id}/verdict`;
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: now }, write);
    return redirect(refused ? address : `/jobs/${job.id}/${next}`);
  };
  if (intent === "arrived" || intent === "not-arrived") {
    await takeArrival(job.id, intent === "arrived", fields, now);
    return redirect(`/jobs/${job.id}/verdict`);
  }
  if (intent === "reopen") return decided("back to probing", () => reopen(job.id, now), "probe");
  const known = new Set([...circuit.parts, ...circuit.connectors, ...circuit.wires].map(({ id }) => id)).add(
    theCar,
  );
  const parts = text.split("+").filter((id) => known.has(id));
  if (parts.length === 0) throw data("No part of this circuit was chosen.", { status: 400 });
  const name = repairName(circuit, parts);
  if (intent === "await")
    return decided(`${name} is ordered`, () => awaitParts(job.id, parts, now), "verdict");
  const wrong = await wrongPartAddress(job, circuit, parts);
  if (wrong) return redirect(wrong);
  const then = verdictThen(await jobViewAt(params.id), parts);
  return decided(`${name} is fitted`, () => partsFitted(job.id, parts, then, now), "prove");
}

const headings = {
  open: "Not certain yet. Most likely:",
  settled: "Confirmed:",
  "best-guess": "Best guess:",
} as const;

export default function Verdict({ loaderData }: Route.ComponentProps) {
  useSharedJob(loaderData.version);
  const busy = useNavigation().state !== "idle";
  const { id, money, stage, partsIn, verdict, fitted } = loaderData;
  const price = (minor: number): string => priceText(minor, money.currency);
  const open = verdict.state === "open";
  return (
    <main
      id="main"
      className="grid w-full max-w-7xl grid-cols-[minmax(0,1fr)] content-start gap-5 p-5 max-md:p-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
    >
      <div className="grid content-start gap-5">
        <VerdictCard verdict={verdict} />
        <Decide
          verdict={verdict}
          stage={stage}
          partsIn={partsIn}
          open={open}
          id={id}
          busy={busy}
          fitted={fitted}
          price={price}
        />
        <AnotherTest price={price} verdict={verdict} money={money} />
        <Cautions hot={loaderData.hot} burnt={loaderData.burnt} />
      </div>
      {loaderData.picture && <FailedPath picture={loaderData.picture} name={verdict.name} />}
    </main>
  );
}

interface FailedPathProps {
  readonly picture: NonNullable<Route.ComponentProps["loaderData"]["picture"]>;
  readonly name: string;
}

/** The drawing with the likeliest fault in it, and its part marked. */
const FailedPath = ({ picture: { svg, setting, words }, name }: FailedPathProps) => (
  <figure className="sheet-card self-start p-2 lg:sticky lg:top-3">
    <div
      role="img"
      aria-label={`The circuit on ${setting} with ${name} marked: ${words}`}
      className="[&_svg]:h-auto [&_svg]:max-h-[70vh] [&_svg]:w-full"
      // Drawn by the server with every text escaped; in the page itself, so that it follows the theme.
      dangerouslySetInnerHTML={{ __html: svg }}
    />
    <figcaption className="px-2 pt-1 text-base text-soft">
      What every point would read on {setting} if this is the fault: {words}.
    </figcaption>
  </figure>
);

function Cautions({ hot, burnt }: { hot: boolean; burnt: boolean }) {
  return (
    <section aria-labelledby="care" className="border-l-4 border-danger pl-3 text-base">
      <h2 id="care" className="font-bold">
        Before you reach in
      </h2>
      <p>
        Key off and wheel still. Near yellow plugs, follow the maker's waiting time for airbags. The maker's
        procedure and local rules come before anything on this page.
      </p>
      {hot && <p>The resistor pack can burn you. Let it cool.</p>}
      {burnt && (
        <p>
          Replace a melted plug, do not clean it. Disconnect the battery negative before you splice in a new
          one.
        </p>
      )}
    </section>
  );
}

interface VerdictCardProps {
  readonly verdict: Route.ComponentProps["loaderData"]["verdict"];
}

/** What to replace, the belief, and the reasons. */
function VerdictCard({ verdict }: VerdictCardProps) {
  return (
    <section className="tag-card" aria-labelledby="verdict">
      <div className="tag-face">
        <p className="text-base text-soft">{headings[verdict.state]}</p>
        <h2 id="verdict" className="mt-1 pr-8 text-2xl font-bold">
          {verdict.title}, {percent(verdict.p)}
        </h2>
        <ul className="mt-3 list-disc space-y-1 pl-5">
          {verdict.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
        {verdict.figures.length > 0 && <Details>{verdict.figures.join(" ")}</Details>}
        {verdict.customer && (
          <p className="mt-3">
            <b>For the customer:</b> {verdict.customer}
          </p>
        )}
        {verdict.killer && (
          <p className="mt-3">
            <b>Root cause:</b> {verdict.killer}. If it stays in, it will burn out the new part.
          </p>
        )}
        {verdict.check && (
          <p className="mt-3">
            <b>Before the new part goes in:</b> check {verdict.check}. Spin it by hand and clamp its current
            on top speed, or measure the volts across it. A tight motor burns out packs, pins and fuses.
          </p>
        )}
      </div>
    </section>
  );
}

interface AnotherTestProps {
  readonly price: (minor: number) => string;
  readonly verdict: Route.ComponentProps["loaderData"]["verdict"];
  readonly money: Route.ComponentProps["loaderData"]["money"];
}

/** Replace now or test further, in money. */
function AnotherTest({ price, verdict, money }: AnotherTestProps) {
  return (
    <section className="sheet-card p-4" aria-labelledby="pays">
      <h2 id="pays" className="font-bold">
        Is another test worth it?
      </h2>
      <dl className="mt-2 grid grid-cols-[1fr_auto] gap-y-1">
        <dt>Replace it now, including comeback risk</dt>
        <dd className="figures text-right">{price(verdict.fitNowMinor)}</dd>
        <dt>The test that pays most, then decide</dt>
        <dd className="figures text-right">
          {verdict.testMoreMinor === null ? "none left" : price(verdict.testMoreMinor)}
        </dd>
      </dl>
      <p className="mt-1 text-base text-soft">
        Average cost at {price(money.hourMinor)} an hour, {price(money.comebackMinor)} a comeback and usual
        part prices.{" "}
        <Link to="/settings" className="underline">
          Rates and tax
        </Link>
      </p>
    </section>
  );
}

interface DecideProps {
  readonly verdict: Route.ComponentProps["loaderData"]["verdict"];
  readonly stage: Route.ComponentProps["loaderData"]["stage"];
  readonly partsIn: boolean;
  readonly open: boolean;
  readonly id: Route.ComponentProps["loaderData"]["id"];
  readonly busy: boolean;
  readonly fitted: Route.ComponentProps["loaderData"]["fitted"];
  readonly price: (minor: number) => string;
}

/** What fitting without the proof risks, in odds and money. */
function fitAnyway(verdict: DecideProps["verdict"], price: (minor: number) => string): string {
  const { p, fitNowMinor, testMoreMinor } = verdict;
  const wrong = `Fitted now, it is the wrong repair in about ${percent(1 - p)} of such cars.`;
  const saved = testMoreMinor === null ? 0 : fitNowMinor - testMoreMinor;
  return saved > 0
    ? `${wrong} That costs ${price(saved)} more on average than testing first.`
    : `${wrong} On average it costs ${price(fitNowMinor)}, comebacks included.`;
}

/** The decision. */
function Decide({ verdict, stage, partsIn, open, id, busy, fitted, price }: DecideProps) {
  return (
    <Form method="post" className="flex flex-wrap gap-3">
      <input type="hidden" name="parts" value={verdict.replace.join("+")} />
      {stage === "probing" || stage === "part-awaited" ? (
        <>
          {open && (
            <Link to={`/jobs/${id}/probe`} className="btn btn-main">
              Go back to probing
            </Link>
          )}
          {open && (
            <p id="fit-anyway" className="w-full">
              {fitAnyway(verdict, price)}
            </p>
          )}
          <Link to={`/jobs/${id}/work`} className={open ? "btn" : "btn btn-main"}>
            Plan all the work
          </Link>
          {stage === "probing" && (
            <button className="btn" name="intent" value="await" type="submit" disabled={busy}>
              Mark part as ordered
            </button>
          )}
          <button
            className="btn"
            name="intent"
            value="fitted"
            type="submit"
            disabled={busy}
            aria-describedby={open ? "fit-anyway" : undefined}
          >
            {open ? "Mark as fitted anyway" : "Mark as fitted"}
          </button>
          {stage === "part-awaited" && (
            <button
              className="btn"
              name="intent"
              value={partsIn ? "not-arrived" : "arrived"}
              type="submit"
              disabled={busy}
            >
              {partsIn ? "Part has not arrived" : "Mark part as arrived"}
            </button>
          )}
          {stage === "part-awaited" && (
            <button className="btn" name="intent" value="reopen" type="submit" disabled={busy}>
              Go back to probing
            </button>
          )}
        </>
      ) : (
        <div className="grid gap-2">
          <p>
            Fitted: {fitted}.{" "}
            <Link to={`/jobs/${id}/work`} className="underline">
              See the work list
            </Link>
          </p>
          <NextStep jobId={id} stage={stage} probing={{ to: "probe", title: "Go back to probing" }} />
        </div>
      )}
    </Form>
  );
}

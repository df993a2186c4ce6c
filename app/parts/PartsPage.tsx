import { minutesText } from "@core/units/wording";
import { Form, Link } from "react-router";
import { Fold } from "../ui/Fold";
import { DifferenceTable } from "./DifferenceTable";
import { JobMoneyNav } from "./JobMoneyNav";
import { LeadTable } from "./LeadTable";
import { Again, PartForm } from "./PartForm";
import type { PartsData } from "./partsView.server";
import { SpeedsWithPart } from "./SpeedsWithPart";

interface PartsPageProps {
  readonly jobId: number;
  readonly match: PartsData;
  /** Somebody just tried to fit or order a part that is the wrong one. */
  readonly refusedToFit: boolean;
  readonly problem: string | null;
  readonly text: string | null;
}

const verdictWords = {
  same: "No difference found in what is known of both parts.",
  harmless: "Fits. The differences do not matter.",
  adaptable: "Fits with modification.",
  wrong: "Wrong part. Return it.",
} as const;

/** The old part compared with the new one, and both with the circuit. */
export function PartsPage({ jobId, match, refusedToFit, problem, text }: PartsPageProps) {
  const { part, old, fresh, catalogue, chain, match: found } = match;
  const refused = (match.leads?.refusals.length ?? 0) > 0;
  return (
    <main id="main" className="grid w-full max-w-7xl content-start gap-4 px-5 py-3 max-md:px-3">
      <JobMoneyNav jobId={jobId} here="parts" />
      {refusedToFit && found?.verdict === "wrong" && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          Nothing was changed: {fresh?.number} is the wrong part. Choose another one, or accept each
          difference below and say why. Your reasons are printed on the job card.
        </p>
      )}
      <PartNav match={match} jobId={jobId} part={part} />
      <Form method="post" className="flex flex-wrap items-end gap-3">
        <input type="hidden" name="part" value={part} />
        <Choice name="old" label="Old part" value={old?.number ?? ""} of={catalogue} />
        <Choice name="fresh" label="New part" value={fresh?.number ?? ""} of={catalogue} />
        <button type="submit" name="intent" value="hold" className="btn">
          Compare
        </button>
      </Form>
      {chain.length > 1 && <Supersession match={match} chain={chain} />}
      {found && fresh && old ? (
        <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <FitCard refused={refused} found={found} part={part} match={match} problem={problem} />
          <div className="grid gap-4">
            {found.inCircuit && <SpeedsWithPart found={found.inCircuit} />}
            {match.leads && <LeadTable leads={match.leads} plug={match.plug ?? ""} />}
          </div>
        </div>
      ) : (
        <p className="sheet-card max-w-2xl p-4">
          Choose the old part and the new part by the number on them. If a part is not listed, describe it
          below; it is then compared with the old one.
        </p>
      )}
      <PartOnwards jobId={jobId} match={match} />
      <FromFile part={part} match={match} text={text} problem={problem} />
    </main>
  );
}

/** The one next step: choose the part compared, or list the work it needs. */
function PartOnwards({ jobId, match }: { readonly jobId: number; readonly match: PartsData }) {
  const { match: found, old, fresh, part } = match;
  if (!found || !old || !fresh || found.verdict === "wrong") return null;
  if (!match.isChosen)
    return (
      <Form method="post">
        <input type="hidden" name="part" value={part} />
        <input type="hidden" name="old" value={old.number} />
        <input type="hidden" name="fresh" value={fresh.number} />
        <button type="submit" name="intent" value="hold" className="btn btn-main">
          Use {fresh.number} on this job
        </button>
      </Form>
    );
  return (
    <p className="flex flex-wrap items-center gap-3">
      <Link to={`/jobs/${jobId}/work`} className="btn btn-main">
        Continue to the work list
      </Link>
      {found.workMinutes > 0 && (
        <span className="text-base text-soft">
          Its adaptations are steps of the repair, and are proposed as lines of work.
        </span>
      )}
    </p>
  );
}

interface ChoiceProps {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly of: PartsData["catalogue"];
}

const Choice = ({ name, label, value, of }: ChoiceProps) => (
  <label className="grid min-w-0 gap-0.5 text-base text-soft">
    {label}
    <select key={value} name={name} defaultValue={value} className="field w-80 max-w-full text-ink">
      <option value="">not known</option>
      {of.map(({ number, title, listed, replacedBy }) => (
        <option key={number} value={number}>
          {number}, {title}
          {listed ? " · listed for this vehicle" : ""}
          {replacedBy ? " · superseded" : ""}
        </option>
      ))}
    </select>
  </label>
);

interface PartNavProps {
  readonly match: PartsPageProps["match"];
  readonly jobId: PartsPageProps["jobId"];
  readonly part: PartsPageProps["match"]["part"];
}

/** The parts of the verdict. */
function PartNav({ match, jobId, part }: PartNavProps) {
  return (
    <nav aria-label="Part" className="flex flex-wrap gap-2">
      {match.parts.map(({ id, name }) => (
        <Link
          key={id}
          to={`/jobs/${jobId}/parts?part=${id}`}
          aria-current={id === part ? "true" : undefined}
          className="btn px-3 text-base aria-[current=true]:border-ink aria-[current=true]:bg-ink aria-[current=true]:text-paper"
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}

interface SupersessionProps {
  readonly match: PartsPageProps["match"];
  readonly chain: PartsPageProps["match"]["chain"];
}

/** What replaced the number. */
function Supersession({ match, chain }: SupersessionProps) {
  return (
    <p className="text-base">
      {match.circle ? (
        <b>
          These part numbers replace each other in a circle: {chain.join(" → ")}. Ask the supplier for the
          newest.
        </b>
      ) : (
        <>
          Current part number: <b className="figures">{chain.at(-1)}</b>{" "}
          <span className="text-soft">({chain.join(" → ")})</span>
        </>
      )}
    </p>
  );
}

interface FitCardProps {
  readonly refused: boolean;
  readonly found: NonNullable<PartsPageProps["match"]["match"]>;
  readonly part: PartsPageProps["match"]["part"];
  readonly match: PartsPageProps["match"];
  readonly problem: PartsPageProps["problem"];
}

/** Whether the new part fits. */
function FitCard({ refused, found, part, match, problem }: FitCardProps) {
  return (
    <section className="tag-card" aria-labelledby="fits">
      <div className="tag-face">
        <h2 id="fits" className="pr-8 text-xl font-bold">
          {refused && found.verdict !== "wrong"
            ? "Its leads cannot be spliced in as supplied."
            : verdictWords[found.verdict]}
        </h2>
        <p className="text-base text-soft">
          {found.number === "supersedes"
            ? "Its number replaces the old one."
            : found.number === "same"
              ? "The same number."
              : "Its number is not listed for this vehicle. Go by what you can see and measure."}
          {found.workMinutes > 0 && ` ${minutesText(found.workMinutes)} of work to fit it.`}
        </p>
        <DifferenceTable part={part} match={match} problem={problem} />
        {found.untold.length > 0 && (
          <p className="mt-2 text-base">
            <b>Check both parts before you throw the box away:</b> {found.untold.join(", ")}.
          </p>
        )}
      </div>
    </section>
  );
}

interface FromFileProps {
  readonly part: PartsPageProps["match"]["part"];
  readonly match: PartsPageProps["match"];
  readonly text: PartsPageProps["text"];
  readonly problem: PartsPageProps["problem"];
}

/** The new part from a file. */
function FromFile({ part, match, text, problem }: FromFileProps) {
  return (
    <section className="sheet-card max-w-3xl px-3 py-1 text-base">
      <Fold title="Describe a part that is not listed">
        <PartForm key={part} match={match} />
      </Fold>
      <Fold title="Import an airway-part file" {...(text === null ? {} : { open: true })}>
        <Form method="post" className="grid gap-2 pb-2">
          <input type="hidden" name="intent" value="describe" />
          <label className="grid gap-1 text-soft">
            The file's text
            <textarea
              name="text"
              rows={8}
              maxLength={20_000}
              className="field figures w-full text-ink"
              defaultValue={text ?? ""}
            />
          </label>
          <Again />
          {problem && text !== null && (
            <p role="alert" className="text-danger">
              Not saved: {problem}.
            </p>
          )}
          <button type="submit" className="btn justify-self-start">
            Add it to the list
          </button>
        </Form>
      </Fold>
    </section>
  );
}

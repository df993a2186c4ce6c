import { percent } from "@core/units/wording";
import { verdictWords } from "@words/stateWords";
import { Link } from "react-router";
import { TurnSketch } from "../motor/TurnSketch";
import { CurrentDrawSketch } from "./CurrentDrawSketch";
import type { CloseData } from "./closeView.server";
import { customerPage } from "./customerWords";

/** The page for the customer, in plain words. */
export function CustomerCard({ card }: { card: CloseData }) {
  return (
    <article className="sheet-card grid gap-3 p-5 print:border-0 print:p-0" aria-label="For the customer">
      <header>
        <h2 className="text-xl font-bold">{card.vehicle}</h2>
        <p className="text-base text-soft">
          Job {card.id} · arrived {card.came}
          {card.closed ? ` · done ${card.closed}` : ""}
        </p>
      </header>
      {customerPage(card).map(({ title, words }) => (
        <section key={title}>
          <h3 className="font-semibold">{title}</h3>
          <p>{words}</p>
        </section>
      ))}
    </article>
  );
}

/** The card for the file: everything read, decided, fitted and checked. */
export function JobCard({ card, sheet }: { card: CloseData; sheet: React.ReactNode }) {
  const { closure, minutes } = card;
  return (
    <article
      className="sheet-card grid gap-3 p-5 print:break-before-page print:border-0 print:p-0"
      aria-label="Job card"
    >
      <CardHead card={card} />
      <Row title="Complaint">{card.words || "–"}</Row>
      {sheet && (
        <Row
          title={card.closure && card.closure.fault !== "unknown" ? "Fault in the circuit" : "The circuit"}
        >
          {sheet}
        </Row>
      )}
      <CardSeen card={card} />
      {card.recordings.length > 0 && <CardMotor card={card} />}
      {card.draw.length > 0 && (
        <Row title="Current draw, A">
          <CurrentDrawSketch draw={card.draw} />
        </Row>
      )}
      <Row title="Verdict">
        {card.verdict.name}, {percent(card.verdict.p)} ({verdictWords[card.verdict.state]}).
        <ul className="list-disc pl-5">
          {card.verdict.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      </Row>
      <Row title="Work done">
        {card.rounds.length === 0 && "nothing yet"}
        {card.rounds.map(({ number, failed, words }) => (
          <div key={number}>
            {card.rounds.length > 1 && (
              <b>
                Round {number}
                {failed ? ", the final check failed" : ""}
              </b>
            )}
            <ul className="list-disc pl-5">
              {words.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </div>
        ))}
        {card.doneBy.length > 0 && <p>Done by {card.doneBy.join(", ")}.</p>}
      </Row>
      {card.warranties.length > 0 && <Row title="Warranty">{card.warranties.join("; ")}</Row>}
      {card.remarks.length > 0 && (
        <Row title="Remarks">
          <ul className="list-disc pl-5">
            {card.remarks.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </Row>
      )}
      {card.found && <Row title="Found and done">{card.found}</Row>}
      {closure && (
        <>
          <Row title="Fault">
            {closure.findingWords.length === 0
              ? closure.faultWords
              : closure.findingWords.map(({ round, words }) => (
                  <div key={`${round} ${words}`}>
                    {words}
                    {card.rounds.length > 1 && `, round ${round}`}
                  </div>
                ))}
          </Row>
          <Row title="Root cause">{closure.causeText}</Row>
          {closure.stopgap && (
            <Row title="Temporary repair">
              {closure.stopgap}; check again {closure.followUp}
            </Row>
          )}
          {closure.advice && <Row title="Advised">{closure.advice}</Row>}
        </>
      )}
      {minutes && (
        <Row title="Time">
          {minutes.looks} tests, {Math.round(minutes.looking)} min to the verdict
          {minutes.chart !== null && ` (fixed test order: ${Math.round(minutes.chart)} min)`}
          {minutes.repair !== null && `; ${Math.round(minutes.repair)} min for removal and refitting`}
        </Row>
      )}
      <CardProof card={card} />
      {card.notes.length > 0 && <CardNotes card={card} />}
    </article>
  );
}

function Row({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="grid gap-x-4 text-base sm:grid-cols-[8rem_1fr]">
      <h3 className="font-semibold text-soft">{title}</h3>
      <div>{children}</div>
    </section>
  );
}

interface CardHeadProps {
  readonly card: CloseData;
}

/** The job and its vehicle. */
function CardHead({ card }: CardHeadProps) {
  return (
    <header>
      <h2 className="text-xl font-bold">
        Job {card.id}: {card.vehicle}
      </h2>
      <p className="text-base text-soft">
        {card.circuit} · arrived {card.came}
        {card.closed ? ` · closed ${card.closed}` : ""}
      </p>
      {card.comebackOf && (
        <p className="text-base">
          A comeback of <Link to={`/jobs/${card.comebackOf}/close`}>job {card.comebackOf}</Link>.
        </p>
      )}
      {card.comebacks.map((id) => (
        <p key={id} className="text-base text-danger">
          It came back as <Link to={`/jobs/${id}`}>job {id}</Link>.
        </p>
      ))}
    </header>
  );
}

interface CardSeenProps {
  readonly card: CloseData;
}

/** Every reading. */
function CardSeen({ card }: CardSeenProps) {
  return (
    <Row title="Seen">
      <ol>
        {card.evidence.map((line) => (
          <li key={line.id}>
            <span className="figures">{line.number}.</span> {line.what}
            {line.heard && " (complaint)"}: <b>{line.result}</b>
            {line.source && ` (by ${line.source})`}
            {line.takenBy && ` (${line.takenBy})`}
          </li>
        ))}
      </ol>
    </Row>
  );
}

interface CardMotorProps {
  readonly card: CloseData;
}

/** The motor's current as measured. */
function CardMotor({ card }: CardMotorProps) {
  return (
    <Row title="Motor">
      <ul className="grid gap-1">
        {card.recordings.map(({ id, name, setting, when, humps: ripple, noise }) => (
          <li key={id}>
            {name}, speed {setting}, {when} the repair:{" "}
            {ripple ? <TurnSketch humps={ripple} /> : <b>sounds like {noise}</b>}
          </li>
        ))}
      </ul>
    </Row>
  );
}

interface CardProofProps {
  readonly card: CloseData;
}

/** The final check, step by step. */
function CardProof({ card }: CardProofProps) {
  return (
    <Row title="Proof">
      <table className="w-full text-left">
        <thead>
          <tr>
            <th scope="col" className="pr-2">
              step
            </th>
            <th scope="col" className="pr-2">
              expected
            </th>
            <th scope="col">seen</th>
          </tr>
        </thead>
        <tbody>
          {card.proof.steps.map(({ id, title, expected, found, judged }) => (
            <tr key={id} className="border-t border-rule">
              <td className="pr-2">{title}</td>
              <td className="pr-2">{expected}</td>
              <td className={judged && judged !== "right" ? "text-danger" : ""}>{found ?? "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Row>
  );
}

interface CardNotesProps {
  readonly card: CloseData;
}

/** Notes and photos. */
function CardNotes({ card }: CardNotesProps) {
  return (
    <Row title="Notes">
      <ul className="grid gap-2">
        {card.notes.map(({ id, words, photo, time }) => (
          <li key={id}>
            <span className="figures text-soft">{time}</span> {words}
            {photo && (
              <img
                src={`/jobs/${card.id}/photos/${id}`}
                alt={words || "photo of the job"}
                width={photo.width}
                height={photo.height}
                loading="lazy"
                className="mt-1 h-auto max-h-80 w-auto max-w-full"
              />
            )}
          </li>
        ))}
      </ul>
    </Row>
  );
}

import { percent } from "@core/units/wording";
import type { Place } from "@core/wiring/place";
import { placeTestText } from "@words/placeWords";
import { useEffect, useRef, useState } from "react";
import { Form, useNavigation } from "react-router";
import { ComplaintStrip } from "../complaint/ComplaintStrip";
import { QueuedForm, QueuedPage, useQueuedSend } from "../entries/QueuedForm";
import { AlsoHere } from "../job/LiveJob";
import { useLetterKeys } from "../shell/letterKeys";
import { Fold } from "../ui/Fold";
import { GoOn } from "./GoOn";
import { LikeliestWiring } from "./LikeliestWiring";
import { NextPlaceTest, type OfferedPlaceTest } from "./NextPlaceTest";
import { SeenEvidence } from "./SeenEvidence";
import { PictureChoice } from "./SeenPictures";
import { SeenSuspects, SeenVerdict, SeenWirings, stateTitles } from "./SeenVerdict";
import { SpeedCount } from "./SpeedCount";
import type { SeenFindings, seenJobView } from "./seenJobView.server";
import { useCardKeys } from "./useCardKeys";
import { WentOn } from "./WentOn";

type View = Omit<Awaited<ReturnType<typeof seenJobView>>, "findings">;

interface SeenJobPageProps {
  readonly view: View;
  /** Null while the wirings are being weighed. */
  readonly findings: SeenFindings | null;
  readonly problem: string | null;
}

/** A job on a vehicle whose diagram nobody has: the next test, and what the readings say so far. */
export function SeenJobPage({ view, findings, problem }: SeenJobPageProps) {
  const { id, label, seenText, words, jobId, deleted, evidence, token } = view;
  const open = jobId === null && !deleted;
  const doubted = new Set(findings?.doubted ?? []);
  return (
    <main id="main" className="mx-auto w-full max-w-7xl grow p-5 max-md:p-3">
      <h1 className="text-xl font-bold">
        {label || "Vehicle"} <span className="font-normal text-soft">without a diagram</span>
      </h1>
      <p className="text-base text-soft">{[seenText, words].filter(Boolean).join(" · ")}</p>
      <AlsoHere />
      {findings && (
        <p className="text-base font-semibold lg:hidden">
          <a href="#seen-verdict">
            {stateTitles[findings.diagnosis.state]}: {findings.diagnosis.repair}{" "}
            <span className="figures whitespace-nowrap">{percent(findings.diagnosis.p)}</span>
          </a>
        </p>
      )}
      {problem && (
        <p role="alert" className="text-danger">
          {problem}
        </p>
      )}
      {jobId !== null && (
        <WentOn
          jobId={jobId}
          wiringAssumed={view.wiringAssumed}
          beliefs={
            findings?.withDiagram
              ? { before: findings.diagnosis.suspects, after: findings.withDiagram }
              : null
          }
          left={view.left}
        />
      )}
      {deleted && (
        <Form method="post" className="sheet-card mt-2 flex flex-wrap items-center gap-3 p-3" role="status">
          This job is deleted.
          <button type="submit" name="intent" value="restore" className="btn">
            Restore it
          </button>
        </Form>
      )}
      <QueuedPage to={`/no-diagram/${id}/entries`}>
        <div className="mt-3 grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
          <div className="grid gap-4">
            {findings === null ? (
              <p role="status" aria-busy="true" className="sheet-card p-4">
                Weighing the ways this vehicle may be wired. The first time takes a few seconds.
              </p>
            ) : (
              open && <Tests findings={findings} token={token} evidence={evidence} />
            )}
            {findings && <LikeliestWiring findings={findings} />}
            {open && <OutOfReach places={view.outOfReach} token={token} />}
            {open && <Corrections view={view} />}
          </div>
          <div className="grid gap-4" aria-busy={findings === null}>
            {findings && (
              <>
                <SeenVerdict diagnosis={findings.diagnosis} />
                {open && <GoOn view={view} findings={findings} />}
                <SeenSuspects suspects={findings.diagnosis.suspects} />
                <SeenWirings wirings={findings.diagnosis.wirings} />
              </>
            )}
            <SeenEvidence
              lines={evidence.map((line) => ({ ...line, doubted: doubted.has(line.number) }))}
              open={open}
            />
            {open && <Keeping id={id} />}
          </div>
        </div>
      </QueuedPage>
    </main>
  );
}

interface TestsProps {
  readonly findings: SeenFindings;
  readonly token: string;
  readonly evidence: View["evidence"];
}

/** The proposed test, or another one that was chosen from the list. */
function Tests({ findings: { diagnosis, offered }, token, evidence }: TestsProps) {
  const [chosen, setChosen] = useState<{ readonly key: string; readonly taken: number } | null>(null);
  const [first] = offered;
  const timesTaken = (key: string): number => evidence.filter(({ testKey }) => testKey === key).length;
  // A choice stands until its test is taken, also while somebody else enters readings.
  const shown = offered.find(({ key }) => key === chosen?.key && timesTaken(key) === chosen.taken) ?? first;
  const choose = (key: string): void => setChosen({ key, taken: timesTaken(key) });
  const card = useRef<HTMLDivElement>(null);
  const cardKey = shown ? `${shown.key} ${timesTaken(shown.key)}` : "";
  /** The card whose form was sent last; empty once the next one is shown. */
  const saved = useRef("");
  useEffect(() => {
    // On a phone, Save is far below the card's first line, so the next test would start above the screen. What others
    // enter does not move the page.
    if (saved.current === cardKey || saved.current === "") return;
    saved.current = "";
    if (card.current && card.current.getBoundingClientRect().top < 0) card.current.scrollIntoView();
  }, [cardKey]);
  const send = useQueuedSend();
  useCardKeys(card, useLetterKeys(), {
    next: () => {
      const following = offered[shown ? (offered.indexOf(shown) + 1) % offered.length : 0];
      if (following) choose(following.key);
    },
    undo: () => {
      const last = evidence.findLast(({ struck }) => !struck);
      if (last) send({ intent: "strike", id: last.id, struck: "yes" }, `reading ${last.number} deleted`);
    },
  });
  if (!first || !shown)
    return (
      <p className="sheet-card p-4">
        No test is left that would tell more.{" "}
        {diagnosis.state === "settled"
          ? "The verdict stands."
          : "Decide by the verdict, or reach another place."}
      </p>
    );
  const others = offered.filter(({ key }) => key !== shown.key);
  return (
    <>
      <div
        ref={card}
        className="scroll-mt-3"
        onSubmit={() => {
          saved.current = cardKey;
        }}
      >
        <NextPlaceTest key={cardKey} offered={shown} isFirst={shown === first} token={token} />
      </div>
      {others.length > 0 && (
        // Closed again once a test is chosen or taken.
        <Fold key={shown.key} title="Other tests" className="sheet-card px-3">
          <ul className="pb-2">
            {others.map((own) => (
              <OtherTest key={own.key} offered={own} onChoose={() => choose(own.key)} />
            ))}
          </ul>
        </Fold>
      )}
    </>
  );
}

const OtherTest = ({ offered, onChoose }: { offered: OfferedPlaceTest; onChoose: () => void }) => (
  <li className="border-t border-rule">
    <button
      type="button"
      className="flex min-h-11 w-full items-center justify-between gap-3 text-left text-base underline"
      onClick={() => {
        onChoose();
        document.querySelector("#next-place")?.scrollIntoView({ block: "nearest" });
      }}
    >
      {placeTestText(offered.test)}
      <span className="figures shrink-0 text-soft no-underline">{offered.minutes.toFixed(1)} min</span>
    </button>
  </li>
);

interface OutOfReachProps {
  readonly places: readonly { readonly place: Place; readonly name: string }[];
  readonly token: string;
}

/** Places nobody can get at, each with the way back. */
const OutOfReach = ({ places, token }: OutOfReachProps) =>
  places.length > 0 && (
    <section aria-labelledby="out-of-reach" className="text-base">
      <h2 id="out-of-reach" className="font-semibold text-soft">
        Out of reach
      </h2>
      <ul>
        {places.map(({ place, name }) => (
          <li key={place} className="flex items-center gap-3 border-t border-rule">
            <span className="grow">{name}</span>
            <QueuedForm words={() => `${name}: within reach`}>
              <input type="hidden" name="intent" value="reach" />
              <input type="hidden" name="token" value={token} />
              <input type="hidden" name="place" value={place} />
              <button type="submit" name="out" value="no" className="min-h-11 underline">
                I can get at it now
              </button>
            </QueuedForm>
          </li>
        ))}
      </ul>
    </section>
  );

/** The complaint and what is seen, to be completed or corrected. */
function Corrections({ view }: { view: View }) {
  const { settings, heard, tokens, seen } = view;
  const busy = useNavigation().state !== "idle";
  return (
    <>
      <Fold
        title="What each speed does"
        className="sheet-card px-3"
        initially={Object.keys(heard).length === 0}
      >
        {settings.length > 1 ? (
          <ComplaintStrip settings={settings} heard={heard} tokens={tokens} />
        ) : (
          <p className="pb-3 text-base text-soft">
            Count the speeds under “What is seen of the vehicle” first.
          </p>
        )}
      </Fold>
      <Fold title="What is seen of the vehicle" className="sheet-card px-3">
        <Form method="post" className="grid gap-4 pb-3">
          <input type="hidden" name="intent" value="seen" />
          <PictureChoice name="controls" title="The speed is chosen with" chosen={seen.controls} />
          <PictureChoice name="speedPart" title="The speeds come from" chosen={seen.speedPart} />
          <SpeedCount speeds={seen.speeds} />
          <PictureChoice name="blowers" title="Blowers" chosen={seen.blowers?.toString()} />
          <PictureChoice name="steering" title="Steering wheel" chosen={seen.steering} />
          <button type="submit" className="btn justify-self-start" disabled={busy}>
            Save what is seen
          </button>
        </Form>
      </Fold>
    </>
  );
}

/** Exports the job as a file, or deletes it; a deleted job can be restored. */
const Keeping = ({ id }: { id: number }) => (
  <div className="flex flex-wrap items-center gap-4 text-base">
    <a href={`/no-diagram/${id}/case`} className="inline-flex min-h-11 items-center underline" download>
      Export as a case file
    </a>
    <Form method="post">
      <button type="submit" name="intent" value="delete" className="min-h-11 underline">
        Delete this job
      </button>
    </Form>
  </div>
);

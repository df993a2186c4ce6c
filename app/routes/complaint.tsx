import { answerOf, complaintQuestions } from "@core/diagnose/tests/complaintQuestions";
import { keyOfReading, testKey } from "@core/predict/reading";
import { readingsOf } from "@db/repositories/readings.server";
import { answerText, topicText } from "@words/complaintWords";
import { data, Link } from "react-router";
import { ComplaintQuestionLine } from "../complaint/ComplaintQuestionLine";
import { ComplaintStrip, type HeardSpeed } from "../complaint/ComplaintStrip";
import { speedLook, takeComplaint } from "../complaint/takeComplaint.server";
import { QueuedForm, QueuedPage } from "../entries/QueuedForm";
import { useSharedJob } from "../entries/useSharedJob";
import { jobAt } from "../job/jobView.server";
import { NextStep } from "../job/NextStep";
import { sentForm } from "../shell/sentForm.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/complaint";

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit, version } = await jobAt(params.id);
  const standing = (await readingsOf(job.id)).flatMap(({ reading, struckAt }) =>
    !struckAt && reading.heard ? [reading] : [],
  );
  const byLook = new Map(standing.map((reading) => [keyOfReading(reading), reading]));
  const questions = complaintQuestions(circuit).map((question) => {
    const reading = byLook.get(testKey(question.test));
    return {
      id: question.id,
      title: topicText(circuit, question.topic),
      chosen: reading ? (answerOf(question, reading)?.id ?? null) : null,
      token: randomId(),
      narrow: question.topic.kind === "history",
      answers: question.answers.map((answer) => ({
        id: answer.id,
        words: answerText(question.topic, answer),
        further: answer.further.map((more) => ({ id: more.id, words: answerText(question.topic, more) })),
      })),
    };
  });
  const heard: Record<string, HeardSpeed> = {};
  for (const setting of circuit.settings) {
    const reading = byLook.get(testKey(speedLook(setting)));
    if (reading?.test === "airflow")
      heard[setting] = { seen: reading.seen, pattern: reading.pattern ?? null };
  }
  return {
    id: job.id,
    version,
    stage: job.stage,
    settings: circuit.settings,
    heard,
    words: job.words,
    promised: job.promised,
    questions,
    tokens: Object.fromEntries(circuit.settings.map((setting) => [setting, randomId()])),
  };
}

/** Receives the page's forms from a browser without scripts; every other browser sends them through its queue. */
export async function action({ params, request }: Route.ActionArgs) {
  const refused = await takeComplaint(params.id, await sentForm(request));
  return data({ problem: refused?.problem }, { status: refused?.status ?? 200 });
}

export default function Complaint({ loaderData }: Route.ComponentProps) {
  useSharedJob(loaderData.version);
  const { id, stage, settings, heard, tokens, words, promised, questions } = loaderData;
  return (
    <main id="main" className="w-full max-w-7xl p-5 max-md:p-3">
      <QueuedPage to={`/jobs/${id}/heard`}>
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
          <div className="grid gap-5">
            <section aria-labelledby="speeds">
              <div className="flex flex-wrap items-center justify-between gap-3">
                <h2 id="speeds" className="text-lg font-bold">
                  What each speed does
                </h2>
                {stage === "probing" ? (
                  <Link className="btn btn-main" to={`/jobs/${id}/probe`}>
                    Continue to Probe
                  </Link>
                ) : (
                  <NextStep jobId={id} stage={stage} probing={{ to: "probe", title: "Continue to Probe" }} />
                )}
              </div>
              <p className="text-base text-soft">
                Check it yourself: key on, then off and every speed, up and down. Tap what you find.
              </p>
              <div className="mt-2">
                <ComplaintStrip settings={settings} heard={heard} tokens={tokens} />
              </div>
            </section>
            <CustomerWords key={`${words} ${promised}`} words={words} promised={promised} />
          </div>
          <section aria-labelledby="asked">
            <h2 id="asked" className="text-lg font-bold">
              Other signs
            </h2>
            <p className="text-base text-soft">
              Ask the customer and tap the answers. Questions you leave open have no effect.
            </p>
            <ul className="mt-1 border-b border-rule md:grid md:grid-cols-2 md:gap-x-8">
              {questions.map((question) => (
                <ComplaintQuestionLine key={question.id} question={question} />
              ))}
            </ul>
          </section>
        </div>
      </QueuedPage>
    </main>
  );
}

interface CustomerWordsProps {
  readonly words: string;
  readonly promised: string | null;
}

/** What the customer says, in the customer's words, and when the vehicle is promised. */
function CustomerWords({ words, promised }: CustomerWordsProps) {
  return (
    <QueuedForm words={(fields) => `the customer's words: ${fields.words}`} className="grid gap-4">
      <input type="hidden" name="intent" value="words" />
      <div className="grid gap-1">
        <label htmlFor="words" className="font-bold">
          Complaint in the customer's words
        </label>
        <textarea
          id="words"
          name="words"
          rows={2}
          maxLength={500}
          defaultValue={words}
          className="field w-full"
        />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid gap-1 font-bold">
          Promised for
          <input
            type="datetime-local"
            name="promised"
            defaultValue={promised ?? ""}
            className="field font-normal"
          />
        </label>
        <button className="btn" type="submit">
          Save the complaint
        </button>
      </div>
    </QueuedForm>
  );
}

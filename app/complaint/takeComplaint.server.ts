import type { Circuit } from "@core/circuit/circuit";
import { complaintQuestions, everyAnswer } from "@core/diagnose/tests/complaintQuestions";
import { patterns } from "@core/predict/moment";
import { airflowSeen } from "@core/predict/observations/airflowSeen";
import type { Reading } from "@core/predict/reading";
import { promiseSchema } from "@core/records/promise";
import { setWords } from "@db/repositories/jobs.server";
import { setHeard } from "@db/repositories/readings.server";
import { answerText, heardSpeedText, topicText } from "@words/complaintWords";
import { z } from "zod";
import { madeAt } from "../entries/madeAt.server";
import { intoJob, type Refused } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { textFields } from "../text/formText";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("heard"),
    token: z.uuid(),
    setting: z.string().max(16),
    seen: z.union([z.enum(airflowSeen), z.literal("")]),
    pattern: z.union([z.enum(patterns), z.literal("")]).default(""),
  }),
  z.object({
    intent: z.literal("asked"),
    token: z.uuid(),
    question: z.string().max(64),
    /** Empty if an answer is deleted. */
    answer: z.string().max(64),
  }),
  z.object({
    intent: z.literal("words"),
    words: z.string().trim().max(500),
    promised: z.union([z.literal("").transform(() => null), promiseSchema]).optional(),
  }),
]);

/** The airflow test of one speed with the key on. */
export const speedLook = (setting: string) => ({ test: "airflow", key: "run", setting }) as const;

type Heard = Extract<z.infer<typeof form>, { intent: "heard" | "asked" }>;

/** A complaint as a reading, any reading of the same test, and its words; or what is wrong with it. */
function heardReading(circuit: Circuit, sent: Heard) {
  if (sent.intent === "heard") {
    const { setting, seen, pattern } = sent;
    if (!circuit.settings.includes(setting))
      return { problem: "This circuit has no such speed. Load the page again." };
    const as = (own: (typeof airflowSeen)[number]): Reading => ({
      ...speedLook(setting),
      heard: true,
      seen: own,
    });
    return {
      any: as("none"),
      told: seen === "" ? null : { ...as(seen), ...(pattern === "" ? {} : { pattern }) },
      words: heardSpeedText(setting, seen, pattern),
    };
  }
  const question = complaintQuestions(circuit).find(({ id }) => id === sent.question);
  const [any] = question?.answers ?? [];
  if (!question || !any) return { problem: "There is no such question. Load the page again." };
  const answer = everyAnswer(question).find(({ id }) => id === sent.answer);
  if (sent.answer !== "" && !answer) return { problem: "There is no such answer. Load the page again." };
  return {
    any: any.reading,
    told: answer?.reading ?? null,
    words: `${topicText(circuit, question.topic)}: ${answer ? answerText(question.topic, answer) : "deleted"}`,
  };
}

/**
 * Stores what the complaint page sends: what a speed does, an answer, or the customer's words. Resolves once it is on
 * disk.
 * @returns why it was refused, or null
 */
export async function takeComplaint(jobId: string | undefined, sentForm: FormData): Promise<Refused | null> {
  const { job, circuit } = await jobAt(jobId);
  const fields = textFields(sentForm);
  const parsed = form.safeParse(fields);
  if (!parsed.success) return { status: 422, problem: "That complaint cannot be read: load the page again." };
  const sent = parsed.data;
  const at = madeAt(sentForm);
  const own = { jobId: job.id, address: `/jobs/${job.id}/heard`, fields, at };
  if (sent.intent === "words")
    return intoJob({ ...own, words: `the customer's words: ${sent.words}` }, () =>
      setWords(job.id, sent.words, sent.promised),
    );
  const heard = heardReading(circuit, sent);
  if ("problem" in heard) return { status: 422, problem: heard.problem ?? "" };
  return intoJob({ ...own, words: heard.words }, () =>
    setHeard({ id: sent.token, jobId: job.id, reading: heard.any, takenAt: at }, heard.told),
  );
}

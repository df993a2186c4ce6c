import { QueuedForm, usePending } from "../entries/QueuedForm";

interface Answer {
  readonly id: string;
  readonly words: string;
}

/** A question apart from the speeds, as the page shows it. */
export interface AskedQuestion {
  readonly id: string;
  readonly title: string;
  /** The active answer, or null if none was given. */
  readonly chosen: string | null;
  readonly token: string;
  /** True for a yes or no, which takes half a line. */
  readonly narrow: boolean;
  readonly answers: readonly (Answer & { readonly further: readonly Answer[] })[];
}

/** An answer by its id, in words. */
const wordsOf = ({ answers }: AskedQuestion, id: string): string =>
  answers.flatMap((answer) => [answer, ...answer.further]).find((answer) => answer.id === id)?.words ??
  "deleted";

/** One question and its answers: a tap answers, a second tap deletes the answer. */
export function ComplaintQuestionLine({ question }: { question: AskedQuestion }) {
  const { id, title, token, answers, narrow } = question;
  const pending = usePending({ intent: "asked", question: id });
  const chosen = pending ? pending.answer || null : question.chosen;
  const picked = answers.find(
    (answer) => answer.id === chosen || answer.further.some((more) => more.id === chosen),
  );
  const button = (answer: Answer, pressed: boolean, back: string) => (
    <button
      key={answer.id}
      type="submit"
      name="answer"
      value={pressed ? back : answer.id}
      aria-pressed={pressed}
      aria-label={`${title}: ${answer.words}`}
      className="btn min-h-11 px-3 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
    >
      {answer.words}
    </button>
  );
  return (
    <li className={`border-t border-rule py-1 ${narrow ? "" : "md:col-span-2"}`} data-question={id}>
      <QueuedForm
        words={({ answer }) => `${title}: ${wordsOf(question, answer ?? "")}`}
        className="flex flex-wrap items-center gap-x-4 gap-y-1"
      >
        <input type="hidden" name="intent" value="asked" />
        <input type="hidden" name="token" value={token} />
        <input type="hidden" name="question" value={id} />
        <span className="w-60 max-md:w-full">{title}</span>
        <span className="flex flex-wrap gap-1.5">
          {answers.map((answer) => button(answer, picked?.id === answer.id, ""))}
        </span>
        {picked && picked.further.length > 0 && (
          <span className="flex basis-full flex-wrap items-center gap-1.5 md:pl-64">
            {picked.further.map((more) => button(more, chosen === more.id, picked.id))}
          </span>
        )}
      </QueuedForm>
    </li>
  );
}

import type { RefObject } from "react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Form, Link, useActionData, useNavigation, useRevalidator } from "react-router";
import { PathBoard } from "../sheet/PathBoard";
import { plainSheet } from "../sheet/plainSheet";
import { LaidOutSheet } from "../sheet/SheetView";
import { bareState } from "../sheet/sheetState";
import { KeyHint } from "../ui/KeyHint";
import type { LessonData, LessonReply } from "./lessonView.server";

const noLight = (): void => {};
const noHeard = {};

type Question = NonNullable<LessonData["question"]>;

/** The drawing of a question, with its subject marked. */
function questionSheet({ circuit, setup, marked }: Question) {
  const state = bareState(setup.key === "run" ? "run" : "off", setup.setting ?? circuit.settings[0] ?? "off");
  return plainSheet(circuit, state, {
    probe: marked.find((id) => id.includes(":") || id.includes(".")) ?? null,
    lit: new Set(marked),
    unplugged: setup.unplugged ?? [],
  });
}

/** Digits choose, Enter answers, and Enter again shows the next question. */
function useAnswerKeys(question: Question | null, judged: boolean, onNext: () => Promise<void>): void {
  useEffect(() => {
    const act = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || !question) return;
      const own = event.target as HTMLElement;
      const index = Number(event.key) - 1;
      if (!judged && Number.isInteger(index) && question.answers[index]) {
        const chosen = document.querySelector<HTMLInputElement>(`[data-answer="${index}"]`);
        chosen?.focus();
        chosen?.click();
        event.preventDefault();
      }
      if (judged && event.key === "Enter" && own.tagName !== "A" && own.tagName !== "BUTTON") {
        event.preventDefault();
        void onNext();
      }
    };
    window.addEventListener("keydown", act);
    return () => window.removeEventListener("keydown", act);
  }, [judged, question, onNext]);
}

/** A lesson: a few sentences, the drawing, and a question computed from it. */
export function LessonPage({ page }: { page: LessonData }) {
  const { lesson, question, learner, given, next } = page;
  const answer = useActionData<LessonReply>();
  const { revalidate, state: loading } = useRevalidator();
  const busy = useNavigation().state !== "idle" || loading !== "idle";
  const judged = answer?.judged && answer.judged.token === question?.token ? answer.judged : null;
  const [began] = useState(() => Date.now());
  const seconds = useRef<HTMLInputElement>(null);
  const sheet = useMemo(() => (question ? questionSheet(question) : null), [question]);
  useAnswerKeys(question, judged !== null, revalidate);
  return (
    <main
      id="main"
      className="grid w-full min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-3 p-5 max-md:p-3"
    >
      <LessonHead title={lesson.title} learner={learner} given={given} />
      <div className="max-w-4xl space-y-1">
        {lesson.text.map((text) => (
          <p key={text}>{text}</p>
        ))}
      </div>
      {!question ? (
        <p className="sheet-card p-4">No circuit on the shelf suits this lesson. Import or trace one.</p>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,27rem)]">
          <div className="sheet-card sheet-pane relative h-[26rem] max-md:h-[36vh]">
            <LaidOutSheet
              layout={question.layout}
              fileName={`lesson-${lesson.id}`}
              focus={null}
              sheet={sheet}
            />
          </div>
          <AnswerForm {...{ seconds, began, learner, question, judged, answer, busy }} />
        </div>
      )}
      <LessonWays judged={judged} busy={busy} revalidate={revalidate} next={next} learner={learner} />
      {judged?.board && (
        <section aria-label="The path board" className="sheet-card max-h-80 overflow-auto">
          <PathBoard
            settings={judged.board.settings}
            heard={noHeard}
            lines={judged.board.lines}
            lit={null}
            onLight={noLight}
          />
        </section>
      )}
    </main>
  );
}

interface AnswerFormProps {
  readonly seconds: RefObject<HTMLInputElement | null>;
  readonly began: number;
  readonly learner: LessonData["learner"];
  readonly question: Question;
  readonly judged: NonNullable<LessonReply["judged"]> | null;
  readonly answer: LessonReply | undefined;
  readonly busy: boolean;
}

/** The question with its answers, and the comment on the one given. */
function AnswerForm({ seconds, began, learner, question, judged, answer, busy }: AnswerFormProps) {
  return (
    <Form
      method="post"
      className="grid gap-3"
      onSubmit={() => {
        if (seconds.current) seconds.current.value = String((Date.now() - began) / 1000);
      }}
    >
      {Object.entries({
        learner,
        token: question.token,
        item: question.item,
        seed: question.seed,
        rowId: question.rowId,
      }).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <input ref={seconds} type="hidden" name="seconds" defaultValue="0" />
      <AnswerChoices judged={judged} question={question} />
      {question.many && !judged && <p className="text-base text-soft">Several may be right.</p>}
      {answer?.problem && !judged && (
        <p role="alert" className="text-danger">
          {answer.problem}
        </p>
      )}
      {judged ? (
        <div role="status" className="grid gap-2">
          <p className="text-lg font-bold">{judged.right ? "Right." : "Wrong."}</p>
          <p>{judged.why}</p>
          <p className="text-base text-soft">
            {judged.again
              ? `It will be asked again from ${judged.again}.`
              : "It will be asked again in this session."}
          </p>
        </div>
      ) : (
        <button type="submit" className="btn btn-main justify-self-start" disabled={busy}>
          Answer <KeyHint>Enter</KeyHint>
        </button>
      )}
    </Form>
  );
}

interface LessonWaysProps {
  readonly judged: NonNullable<LessonReply["judged"]> | null;
  readonly busy: boolean;
  readonly revalidate: () => Promise<void>;
  readonly next: LessonData["next"];
  readonly learner: LessonData["learner"];
}

/** On to the next question, or back. */
function LessonWays({ judged, busy, revalidate, next, learner }: LessonWaysProps) {
  return (
    <p className="flex flex-wrap gap-3">
      {judged && (
        <button type="button" className="btn btn-main" disabled={busy} onClick={() => void revalidate()}>
          Next question <KeyHint>Enter</KeyHint>
        </button>
      )}
      {next && (
        <Link to={`/practice/lessons/${next}?learner=${encodeURIComponent(learner)}`} className="btn">
          Next lesson
        </Link>
      )}
      <Link to={`/practice?learner=${encodeURIComponent(learner)}`} className="btn">
        All lessons
      </Link>
    </p>
  );
}

interface AnswerChoicesProps {
  readonly judged: AnswerFormProps["judged"];
  readonly question: AnswerFormProps["question"];
}

/** The answers to choose from. */
function AnswerChoices({ judged, question }: AnswerChoicesProps) {
  return (
    <fieldset className="grid gap-2" disabled={judged !== null}>
      <legend className="pb-2 text-lg font-semibold">{question.words}</legend>
      {question.answers.map(({ id, text }, index) => {
        const right = judged?.rightIds.includes(id);
        const chosen = judged?.chosen.includes(id);
        return (
          <label
            key={id}
            className={`flex min-h-11 items-center gap-3 border-l-4 px-3 py-1 ${judged ? (right ? "border-good" : chosen ? "border-danger" : "border-transparent") : "border-transparent"} bg-card`}
          >
            <input
              type={question.many ? "checkbox" : "radio"}
              name="chosen"
              value={id}
              data-answer={index}
              className="size-5 accent-[var(--feed)]"
            />
            <span className="grow">{text}</span>
            {judged && right && <span className="text-good">right</span>}
            {judged && !right && chosen && <span className="text-danger">wrong</span>}
            {!judged && <KeyHint>{index + 1}</KeyHint>}
          </label>
        );
      })}
    </fieldset>
  );
}

interface LessonHeadProps {
  readonly title: string;
  readonly learner: LessonData["learner"];
  readonly given: LessonData["given"];
}

/** The lesson's title, and the results of the last answers. */
const LessonHead = ({ title, learner, given }: LessonHeadProps) => (
  <header className="flex flex-wrap items-baseline gap-x-4">
    <h1 className="text-2xl font-bold">{title}</h1>
    <p className="text-base text-soft">{learner}</p>
    <p
      className="ml-auto flex items-center gap-1 text-base"
      role="img"
      aria-label={`${given.filter(Boolean).length} of the last ${given.length} right`}
    >
      {given.map((right, index) => (
        <span key={index} aria-hidden="true" className={`figures ${right ? "text-good" : "text-danger"}`}>
          {right ? "✓" : "✗"}
        </span>
      ))}
    </p>
  </header>
);

import { answered, type TraceAnswers, type TraceQuestionId } from "@core/trace/traceAnswer";
import { useEffect, useRef, useState } from "react";
import { Form, useNavigation } from "react-router";
import { answerText, fieldValue, type QuestionField, questionNames, questionOf } from "./questionForm";

interface TraceQuestionsProps {
  readonly answers: TraceAnswers;
  readonly asked: readonly TraceQuestionId[];
  readonly refused: { readonly of: string; readonly problems: readonly string[] } | undefined;
}

/** The questions in order: the first open one is asked, and any other can be asked again. */
export function TraceQuestions({ answers, asked, refused }: TraceQuestionsProps) {
  const open = asked.find((id) => answers[id] === undefined) ?? null;
  const [again, setAgain] = useState<{ id: TraceQuestionId; over: TraceAnswers } | null>(null);
  // Giving an answer closes the question; a refused one stays open, with what was typed and why it was refused.
  const isAgain = again !== null && (again.over === answers || refused?.of === again.id);
  const current = isAgain ? again.id : open;
  const count = asked.filter((id) => answers[id] !== undefined).length;
  return (
    <section aria-label="Questions" className="grid gap-2">
      <p className="text-base text-soft" role="status">
        {count} of {asked.length} answered
      </p>
      {current ? (
        <AskedQuestion
          key={`${current} ${again?.id ?? ""}`}
          id={current}
          answers={answers}
          problems={refused?.of === current ? refused.problems : []}
        />
      ) : (
        <p className="text-base">
          All questions are answered. Check the volts, fill in colours and pins below, and save the circuit to
          the shelf.
        </p>
      )}
      <ol className="text-base" aria-label="Answers">
        {asked.map((id) => {
          const given = answers[id] !== undefined;
          if (!given && id !== current) return null;
          return (
            <li key={id} data-question={id} className="border-t border-rule">
              <button
                type="button"
                className="flex min-h-11 w-full items-center justify-between gap-3 text-left"
                aria-current={id === current ? "step" : undefined}
                onClick={() => setAgain({ id, over: answers })}
              >
                <span className={id === current ? "font-bold" : "text-soft"}>{questionNames[id]}</span>
                <span className="text-right">
                  {given
                    ? answered(answers, id).known
                      ? answerText(id, answers)
                      : "not known, assumed"
                    : ""}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

interface AskedQuestionProps {
  readonly id: TraceQuestionId;
  readonly answers: TraceAnswers;
  readonly problems: readonly string[];
}

function AskedQuestion({ id, answers, problems }: AskedQuestionProps) {
  const { ask, hint, fields } = questionOf(id, answers);
  const { value } = answered(answers, id);
  const busy = useNavigation().state !== "idle";
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    const form = heading.current?.closest("form");
    form?.querySelector<HTMLElement>("[data-first]")?.focus();
  }, []);
  const [only] = fields;
  return (
    <Form method="post" className="grid gap-3" data-asked={id}>
      <input type="hidden" name="intent" value="answer" />
      <input type="hidden" name="question" value={id} />
      <div>
        <h2 ref={heading} className="text-lg leading-snug font-bold">
          {ask}
        </h2>
        <p className="text-base text-soft">{hint}</p>
      </div>
      {only?.kind === "choice" ? (
        <OnlyChoice only={only} busy={busy} />
      ) : (
        <div className="grid grid-cols-2 gap-2">
          {fields.map((field, index) => (
            <Field
              key={field.name}
              field={field}
              value={fieldValue(value, field.name)}
              first={index === 0}
              wide={fields.length === 1 || id === "ohms"}
            />
          ))}
        </div>
      )}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="text-base text-danger">
          {problem}
        </p>
      ))}
      <div className="flex gap-2">
        {only?.kind !== "choice" && (
          <button type="submit" className="btn btn-main" disabled={busy}>
            Next
          </button>
        )}
        <button type="submit" name="unknown" value="yes" formNoValidate className="btn" disabled={busy}>
          Not known
        </button>
      </div>
    </Form>
  );
}

interface FieldProps {
  readonly field: QuestionField;
  readonly value: string;
  readonly first: boolean;
  readonly wide: boolean;
}

function Field({ field, value, first, wide }: FieldProps) {
  if (field.kind === "choice") return null;
  const { name, label, kind } = field;
  const unit = field.unit ? `, ${field.unit}` : "";
  return (
    <label className={`grid content-end gap-0.5 text-base text-soft ${wide ? "col-span-2" : ""}`}>
      {label}
      {unit}
      <input
        name={name}
        defaultValue={value}
        required={!field.optional}
        inputMode={kind === "number" ? "decimal" : "text"}
        autoComplete="off"
        spellCheck={false}
        className="field figures w-full text-ink"
        onFocus={({ target }) => target.select()}
        {...(first ? { "data-first": "" } : {})}
      />
    </label>
  );
}

interface OnlyChoiceProps {
  readonly only: {
    readonly kind: "choice";
    readonly name: string;
    readonly options: readonly { readonly value: string; readonly words: string }[];
  };
  readonly busy: boolean;
}

/** A question answered by one tap. */
function OnlyChoice({ only, busy }: OnlyChoiceProps) {
  return (
    <div className="grid gap-2">
      {only.options.map(({ value: option, words }, index) => (
        <button
          key={option}
          type="submit"
          name={only.name}
          value={option}
          className="btn justify-start text-left"
          disabled={busy}
          {...(index === 0 ? { "data-first": "" } : {})}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

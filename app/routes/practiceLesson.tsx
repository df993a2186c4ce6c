import { addLearner } from "@db/repositories/practice.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { LessonPage } from "../practice/LessonPage";
import { learnerLabel, learnerOf } from "../practice/learner.server";
import { judgeAnswer, lessonAt, lessonView } from "../practice/lessonView.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/practiceLesson";

export const meta: Route.MetaFunction = () => [{ title: "Lesson · Airway" }];

export async function loader({ params, request }: Route.LoaderArgs) {
  const lesson = lessonAt(params.lesson);
  const { learner } = await learnerOf(request);
  if (learner === null) throw redirect("/practice");
  return lessonView(lesson, learner, new Date());
}

const form = z.object({
  learner: learnerLabel,
  token: z.uuid(),
  item: z.string().max(80),
  seed: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  rowId: z.string().max(80),
  seconds: z.coerce.number().min(0).max(86_400),
});

export async function action({ params, request }: Route.ActionArgs) {
  lessonAt(params.lesson);
  const fields = await sentForm(request);
  const parsed = form.safeParse(Object.fromEntries(fields));
  const chosen = fields.getAll("chosen").map(String);
  if (!parsed.success || chosen.length === 0)
    return data({ problem: "Choose an answer.", judged: null }, { status: 400 });
  const now = new Date();
  await addLearner(parsed.data.learner, now);
  return { problem: null, judged: await judgeAnswer(parsed.data.learner, { ...parsed.data, chosen }, now) };
}

/** The question stays until the next one is requested. */
export const shouldRevalidate = ({ formMethod }: { formMethod?: string }): boolean => formMethod !== "POST";

export default function PracticeLesson({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <LessonPage key={loaderData.question?.token} page={loaderData} />
    </div>
  );
}

import { readingSchema } from "@core/predict/reading";
import { readingProblems } from "@core/predict/readingProblems";
import { problemText } from "@core/problem/problem";
import { addReading } from "@db/repositories/readings.server";
import { deleteRecording, setHealthy } from "@db/repositories/recordings.server";
import { evidenceText, resultText } from "@words/tests/testText";
import { data, Link, useSearchParams } from "react-router";
import { z } from "zod";
import { withoutTables } from "../engine/engine.server";
import { typedNumber } from "../entries/probeForm";
import { intoJob, type WriteToJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { NextStep } from "../job/NextStep";
import { CurrentDrawView } from "../motor/CurrentDrawView";
import { InstrumentPanel } from "../motor/InstrumentPanel";
import { attachPractice, detachPractice } from "../motor/instruments.server";
import { motorPageView } from "../motor/motorPageView.server";
import { motorPart, wholeNetlist } from "../motor/motorView.server";
import { RippleView } from "../motor/RippleView";
import { SoundView } from "../motor/sound/SoundView";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/motor";

const short = z.string().max(64);
const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("reading"),
    token: z.string().min(1).max(100),
    reading: z.string().max(2000),
    figure: short.optional(),
    source: z.string().max(120).optional(),
  }),
  z.object({ intent: z.literal("strike"), trace: short, struck: z.enum(["yes", "no"]) }),
  z.object({ intent: z.literal("healthy"), trace: short, healthy: z.enum(["yes", "no"]), motor: short }),
  z.object({ intent: z.literal("attach"), fault: z.string().max(120) }),
  z.object({ intent: z.literal("detach") }),
]);

const views = ["draw", "humps", "sound"] as const;
type View = (typeof views)[number];
const viewTitles: Readonly<Record<View, string>> = {
  draw: "Current draw",
  humps: "Current ripple",
  sound: "Sound",
};

export async function loader({ params, request }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const search = new URL(request.url).searchParams;
  return motorPageView(job, circuit, search.get("motor"), search.get("engine") === "on");
}

/** A reading from this page with its typed figure; refused with the field that does not fit. */
function readingOf(text: string, figure: string | undefined): unknown {
  try {
    const test = JSON.parse(text) as Record<string, unknown>;
    if (figure === undefined) return test;
    return { ...test, [String(test.test)]: typedNumber(figure) ?? "not a number" };
  } catch {
    return null;
  }
}

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  const entry = parsed.data;
  const into = async (words: string, write: WriteToJob) => {
    const address = `/jobs/${job.id}/motor`;
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: new Date() }, write);
    return data({ problem: refused?.problem }, { status: refused?.status ?? 200 });
  };
  switch (entry.intent) {
    case "reading": {
      const reading = readingSchema.safeParse(readingOf(entry.reading, entry.figure));
      if (!reading.success) return data({ problem: "Enter a figure, such as 17.6." }, { status: 422 });
      const [wrong] = readingProblems(withoutTables(circuit), reading.data);
      if (wrong) return data({ problem: problemText(wrong) }, { status: 422 });
      const source = entry.source ? { source: entry.source } : {};
      return into(`${evidenceText(circuit, reading.data)}: ${resultText(reading.data)}`, () =>
        addReading({
          id: entry.token,
          jobId: job.id,
          reading: reading.data,
          takenAt: new Date(),
          ...source,
        }),
      );
    }
    case "strike":
      return into("a recording deleted or restored", () =>
        deleteRecording(job.id, entry.trace, entry.struck === "yes" ? new Date() : null),
      );
    case "healthy":
      return into("a recording chosen to compare with", () =>
        setHealthy(job.id, entry.trace, entry.healthy === "yes" ? motorPart(circuit, entry.motor) : null),
      );
    case "attach": {
      const problem = await attachPractice(job.id, wholeNetlist(circuit), entry.fault);
      if (problem) return data({ problem }, { status: 422 });
      break;
    }
    case "detach":
      detachPractice(job.id);
  }
  return { problem: undefined };
}

export default function MotorPage({ loaderData: page }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const view = views.find((own) => own === search.get("view")) ?? "draw";
  const to = (own: View, motor = page.motor.id): string =>
    `/jobs/${page.id}/motor?view=${own}${page.motors.length > 1 ? `&motor=${motor}` : ""}`;
  return (
    <main id="main" className="grid w-full max-w-6xl content-start gap-4 px-5 py-3 max-md:px-3">
      <nav aria-label="Motor measurements" className="flex flex-wrap items-center gap-2">
        {views.map((own) => (
          <Link
            key={own}
            to={to(own)}
            aria-current={own === view ? "page" : undefined}
            className="btn aria-[current=page]:border-ink aria-[current=page]:bg-ink aria-[current=page]:text-paper"
          >
            {viewTitles[own]}
          </Link>
        ))}
        {page.motors.length > 1 &&
          page.motors.map(({ id, name }) => (
            <Link
              key={id}
              to={to(view, id)}
              aria-current={id === page.motor.id ? "true" : undefined}
              className="btn aria-[current=true]:font-bold"
            >
              {name}
            </Link>
          ))}
      </nav>
      <InstrumentPanel page={page} view={view} />
      {view === "draw" && <CurrentDrawView page={page} />}
      {view === "humps" && <RippleView key={page.motor.id} page={page} />}
      {view === "sound" && <SoundView key={page.motor.id} page={page} />}
      <NextStep
        jobId={page.id}
        stage={page.stage}
        probing={{ to: "probe", title: "Go on with the next test" }}
      />
    </main>
  );
}

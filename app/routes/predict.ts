import { expectedResult } from "@core/diagnose/explain/expectation";
import { cautionsOf } from "@core/diagnose/tests/caution";
import { parseTest } from "@core/predict/reading";
import { testProblems } from "@core/predict/readingProblems";
import { healthyVariant } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { expectationText } from "@words/tests/testText";
import { jobViewAt } from "../job/jobView.server";
import type { Route } from "./+types/predict";

const mostFaults = 6;

/** What a test would show on a healthy vehicle, and for each of the named suspects. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const { engine } = await jobViewAt(params.id, request.signal);
  const asked = new URL(request.url).searchParams;
  const test = lookFrom(asked.get("look"));
  if (!test)
    return Response.json({ problem: "That test could not be read. Load the page again." }, { status: 422 });
  const [wrong] = testProblems(engine, test);
  if (wrong) return Response.json({ problem: problemText(wrong) }, { status: 422 });
  const faults = asked.getAll("fault").slice(0, mostFaults);
  const expected = (variant: number): string => expectationText(expectedResult(engine, test, variant));
  const lines = faults.flatMap((fault) => {
    const variant = engine.variants.findIndex(({ id }) => id === fault);
    return variant < 0 ? [] : [{ fault, shows: expected(variant) }];
  });
  return Response.json(
    {
      lines: [{ fault: "healthy", shows: expected(healthyVariant) }, ...lines],
      cautions: cautionsOf(engine, test),
    },
    { headers: { "Cache-Control": "no-store" } },
  );
}

function lookFrom(text: string | null) {
  try {
    return parseTest(JSON.parse(text ?? ""));
  } catch {
    return null;
  }
}

import { practiceKinds, practiceLevels } from "@core/practice/practiceCase";
import { data, Form, Link, useNavigation } from "react-router";
import { z } from "zod";
import { LevelAndKind } from "../practice/LevelAndKind";
import { setCase, trainerView } from "../practice/trainerView.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/practiceTrainer";

export const meta: Route.MetaFunction = () => [{ title: "Set a fault · Airway" }];

export const loader = ({ request }: Route.LoaderArgs) =>
  trainerView(new URL(request.url).searchParams.get("circuit"));

const form = z.object({
  rowId: z.string().max(80),
  title: z.string().trim().min(1, "enter a title; the trainee will read it").max(120),
  level: z.enum(practiceLevels),
  kind: z.enum(practiceKinds),
  fault: z.string().min(1, "choose a fault").max(200),
});

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success)
    return data(
      { problem: parsed.error.issues.map(({ message }) => message).join("; "), set: null },
      { status: 400 },
    );
  const made = await setCase(parsed.data);
  return data(made, { status: made.problem === null ? 200 : 400 });
}

export default function PracticeTrainer({ loaderData, actionData }: Route.ComponentProps) {
  const { circuits, rowId, faults } = loaderData;
  const busy = useNavigation().state !== "idle";
  const set = actionData?.set ?? null;
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main
        id="main"
        className="grid w-full max-w-4xl min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-4 p-5 max-md:p-3"
      >
        <header>
          <p className="text-base">
            <Link to="/practice">Practice bay</Link>
          </p>
          <h1 className="text-2xl font-bold">Set a fault by hand</h1>
          <p className="text-soft">
            The case is saved as a file for the trainee to open in the practice bay. The fault in it is
            disguised, not encrypted.
          </p>
        </header>
        {circuits.length === 0 && (
          <p className="sheet-card p-4">The shelf is empty. Import or trace a circuit first.</p>
        )}
        <CircuitChoice rowId={rowId} circuits={circuits} />
        {rowId !== null && <SetFaultForm key={rowId} rowId={rowId} faults={faults} busy={busy} />}
        {actionData?.problem && (
          <p role="alert" className="border-l-4 border-danger pl-3">
            {actionData.problem}
          </p>
        )}
        {set && (
          <section role="status" className="grid gap-2 border-l-4 border-feed pl-3">
            <p>
              Complaint the trainee will see: “{set.says}” {set.verdict}
            </p>
            <p>
              <a
                className="btn btn-main"
                download={set.name}
                href={`data:application/json;charset=utf-8,${encodeURIComponent(set.file)}`}
              >
                Save the case
              </a>
            </p>
          </section>
        )}
      </main>
    </div>
  );
}

interface CircuitChoiceProps {
  readonly rowId: Route.ComponentProps["loaderData"]["rowId"];
  readonly circuits: Route.ComponentProps["loaderData"]["circuits"];
}

/** The circuit the case is on. */
function CircuitChoice({ rowId, circuits }: CircuitChoiceProps) {
  return (
    <Form className="flex flex-wrap items-end gap-2">
      <label className="grid min-w-0 grow gap-0.5 text-base text-soft">
        Circuit
        <select name="circuit" defaultValue={rowId ?? ""} key={rowId} className="field w-full text-ink">
          {circuits.map((own) => (
            <option key={own.rowId} value={own.rowId}>
              {own.title}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn">
        Use this circuit
      </button>
    </Form>
  );
}

interface SetFaultFormProps {
  readonly rowId: string;
  readonly faults: Route.ComponentProps["loaderData"]["faults"];
  readonly busy: boolean;
}

/** The fault, the level and the name. */
function SetFaultForm({ rowId, faults, busy }: SetFaultFormProps) {
  return (
    <Form method="post" className="sheet-card grid gap-3 p-4">
      <input type="hidden" name="rowId" value={rowId} />
      <label className="grid gap-0.5 text-base text-soft">
        Title (the trainee sees it)
        <input name="title" required maxLength={120} className="field text-ink" autoComplete="off" />
      </label>
      <label className="grid min-w-0 gap-0.5 text-base text-soft">
        Fault: choose one, or type fault ids with the root cause first
        <input
          name="fault"
          list="faults"
          placeholder="M1:tight@1.6+R1.link:open"
          required
          className="field figures text-ink"
          autoComplete="off"
        />
        <datalist id="faults">
          {faults.map(({ id, words }) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </datalist>
      </label>
      <LevelAndKind level="usual" any={false} />
      <button type="submit" className="btn btn-main justify-self-start" disabled={busy}>
        Check the case
      </button>
    </Form>
  );
}

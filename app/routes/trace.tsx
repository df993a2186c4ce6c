import { idFromName } from "@core/circuit/writtenName";
import type { DraftBase } from "@core/trace/draft";
import { traceFamilies } from "@core/trace/family";
import { circuitNameSchema } from "@core/trace/traceCircuit";
import { findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { beginDraft, dropDraft, listDrafts } from "@db/repositories/drafts.server";
import { Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { clockText, dayText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/trace";

export async function loader({ request }: Route.LoaderArgs) {
  const zone = shopZone();
  const [drafts, circuits] = await Promise.all([listDrafts(), listCircuits()]);
  const from = new URL(request.url).searchParams.get("from");
  return {
    drafts: drafts.map(({ id, name, changedAt }) => ({
      id,
      title: name.title,
      changed: `${dayText(changedAt, zone)}, ${clockText(changedAt, zone)}`,
    })),
    circuits: circuits.map(({ rowId, title, shelfId }) => ({ rowId, title, shelfId })),
    from: circuits.some(({ rowId }) => rowId === from) ? `circuit:${from}` : "nothing",
    token: randomId(),
  };
}

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("begin"),
    token: z.uuid(),
    title: z.string().trim().min(1, "is required: enter make and model").max(200),
    steering: z.enum(["", "left", "right"]),
    from: z.string().max(120),
  }),
  z.object({ intent: z.literal("drop"), id: z.uuid() }),
]);

/** Leaves room for the number of a copy. */
const longestId = 60;

async function baseFrom(from: string): Promise<DraftBase | null> {
  if (from === "nothing") return { kind: "trace", answers: {} };
  const [kind, id] = [from.slice(0, from.indexOf(":")), from.slice(from.indexOf(":") + 1)];
  if (kind === "family") {
    const family = traceFamilies.find((own) => own.id === id);
    return family ? { kind: "trace", answers: family.answers } : null;
  }
  const circuit = kind === "circuit" ? await findCircuit(id) : null;
  return circuit ? { kind: "circuit", circuit } : null;
}

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return { problem: `${issue?.path.join(".") === "title" ? "Vehicle" : "That"} ${issue?.message ?? ""}` };
  }
  const sent = parsed.data;
  if (sent.intent === "drop") {
    await dropDraft(sent.id);
    return undefined;
  }
  const base = await baseFrom(sent.from);
  if (!base) return { problem: "The circuit to start from is no longer on the shelf." };
  const taken = new Set((await listCircuits()).map(({ shelfId }) => shelfId));
  const wanted = idFromName(sent.title, longestId).toLowerCase();
  let id = wanted;
  for (let copy = 2; taken.has(id); copy++) id = `${wanted}-${copy}`;
  const name = circuitNameSchema.parse({
    id,
    title: sent.title,
    ...(sent.steering === "" ? {} : { steering: sent.steering }),
  });
  await beginDraft(sent.token, name, base);
  throw redirect(`/trace/${sent.token}`);
}

export const meta: Route.MetaFunction = () => [{ title: "Trace a circuit · Airway" }];

export default function Trace({ loaderData, actionData }: Route.ComponentProps) {
  const { drafts, circuits, from, token } = loaderData;
  const busy = useNavigation().state !== "idle";
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto w-full max-w-3xl grow p-5">
        <h1 className="text-2xl font-bold">Trace a circuit</h1>
        <p className="mt-1 text-soft">
          Have the wiring diagram at hand. Answer questions from the battery to the ground, and the circuit is
          drawn as you go. What you do not know is assumed and marked as assumed.
        </p>
        <BeginForm
          key={token}
          token={token}
          from={from}
          circuits={circuits}
          actionData={actionData}
          busy={busy}
        />
        <Drafts drafts={drafts} />
      </main>
    </div>
  );
}

interface BeginFormProps {
  readonly token: Route.ComponentProps["loaderData"]["token"];
  readonly from: Route.ComponentProps["loaderData"]["from"];
  readonly circuits: Route.ComponentProps["loaderData"]["circuits"];
  readonly actionData: Route.ComponentProps["actionData"];
  readonly busy: boolean;
}

/** Starts a circuit from its diagram or from another circuit. */
function BeginForm({ token, from, circuits, actionData, busy }: BeginFormProps) {
  return (
    <Form method="post" className="mt-5 grid gap-4">
      <input type="hidden" name="intent" value="begin" />
      <input type="hidden" name="token" value={token} />
      <label className="grid gap-1 font-semibold">
        Vehicle
        <input name="title" className="field w-full font-normal" maxLength={200} required />
      </label>
      <label className="grid gap-1 font-semibold">
        Steering wheel
        <select name="steering" className="field w-full font-normal" defaultValue="">
          <option value="">not said</option>
          <option value="left">on the left</option>
          <option value="right">on the right</option>
        </select>
      </label>
      <label className="grid gap-1 font-semibold">
        Start from
        <select name="from" className="field w-full font-normal" defaultValue={from}>
          <option value="nothing">an empty circuit</option>
          <optgroup label="Circuit families">
            {traceFamilies.map(({ id, words }) => (
              <option key={id} value={`family:${id}`}>
                {words}
              </option>
            ))}
          </optgroup>
          <optgroup label="Another vehicle's circuit">
            {circuits.map(({ rowId, title, shelfId }) => (
              <option key={rowId} value={`circuit:${rowId}`}>
                {title} ({shelfId})
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      {actionData?.problem && (
        <p role="alert" className="text-danger">
          {actionData.problem}
        </p>
      )}
      <button type="submit" className="btn btn-main justify-self-start" disabled={busy}>
        Begin
      </button>
    </Form>
  );
}

interface DraftsProps {
  readonly drafts: Route.ComponentProps["loaderData"]["drafts"];
}

/** Circuits that were started and are not on the shelf yet. */
function Drafts({ drafts }: DraftsProps) {
  return (
    <section aria-labelledby="drafts" className="mt-8">
      <h2 id="drafts" className="text-lg font-bold">
        Drafts
      </h2>
      {drafts.length === 0 ? (
        <p className="text-base text-soft">None.</p>
      ) : (
        <ul className="mt-1 divide-y divide-rule border-y border-rule text-base">
          {drafts.map(({ id, title, changed }) => (
            <li key={id} className="flex flex-wrap items-center gap-x-4">
              <Link to={`/trace/${id}`} className="flex min-h-11 grow items-center font-semibold underline">
                {title}
              </Link>
              <span className="text-soft">{changed}</span>
              <Form method="post">
                <input type="hidden" name="intent" value="drop" />
                <input type="hidden" name="id" value={id} />
                <button
                  type="submit"
                  className="min-h-11 px-1 underline"
                  aria-label={`delete the draft of ${title}`}
                  onClick={(event) => {
                    if (!window.confirm(`Delete the draft of ${title}? This cannot be undone.`))
                      event.preventDefault();
                  }}
                >
                  delete{" "}
                </button>
              </Form>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

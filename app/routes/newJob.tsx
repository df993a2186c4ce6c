import { promiseSchema } from "@core/records/promise";
import { database } from "@db/database.server";
import { listCircuits, newestVersionOf } from "@db/repositories/circuits.server";
import { addJob, jobOfForm } from "@db/repositories/jobs.server";
import { addVehicle, findVehicle, listVehicles } from "@db/repositories/vehicles.server";
import { Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { FirstSteps } from "../shell/FirstSteps";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/newJob";

const text = (most: number) => z.string().trim().max(most, `at most ${most} characters`);
const form = z
  .object({
    token: z.uuid(),
    vehicle: z.string("choose a vehicle").regex(/^(new|\d{1,9})$/, "choose a vehicle"),
    label: text(60).default(""),
    model: text(60).default(""),
    circuitId: text(64).default(""),
    words: text(500).default(""),
    promised: z.union([z.literal("").transform(() => undefined), promiseSchema]).optional(),
  })
  .superRefine((job, check) => {
    if (job.vehicle !== "new") return;
    for (const key of ["label", "model", "circuitId"] as const) {
      if (job[key] === "")
        check.addIssue({ code: "custom", path: [key], message: "is required for a new vehicle" });
    }
  });

export async function loader({ request }: Route.LoaderArgs) {
  const [vehicles, circuits] = await Promise.all([listVehicles(), listCircuits()]);
  const { searchParams } = new URL(request.url);
  const asked = searchParams.get("circuit");
  const circuitId = circuits.find(({ rowId }) => rowId === asked)?.rowId ?? "";
  const vehicleId = vehicles.find(({ id }) => String(id) === searchParams.get("vehicle"))?.id ?? null;
  return { vehicles, circuits, circuitId, vehicleId, token: randomId() };
}

type Problems = Record<string, string>;

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success) {
    const problems: Problems = {};
    for (const issue of parsed.error.issues) problems[issue.path.map(String).join(".")] ??= issue.message;
    return { problems };
  }
  const { token, vehicle, label, model, circuitId, words, promised } = parsed.data;
  const known = vehicle === "new" ? null : await findVehicle(Number(vehicle));
  if (vehicle !== "new" && !known)
    return { problems: { vehicle: "that vehicle no longer exists; choose another" } };
  const circuits = await listCircuits();
  if (!known && !circuits.some(({ rowId }) => rowId === circuitId))
    return { problems: { circuitId: "that circuit no longer exists; choose another" } };
  // A vehicle's next job uses the newest version of its circuit.
  const newest = known && (await newestVersionOf(known.circuitId));
  const store = await database();
  const id = await store.write(async (transaction) => {
    const opened = await jobOfForm(token, transaction);
    if (opened !== null) return opened;
    const owner = known ?? (await addVehicle({ label, model, circuitId }, transaction));
    const own = newest ?? owner.circuitId;
    return addJob(
      { formToken: token, vehicleId: owner.id, circuitId: own, words, ...(promised ? { promised } : {}) },
      transaction,
    );
  });
  return redirect(`/jobs/${id}/complaint`);
}

export const meta: Route.MetaFunction = () => [{ title: "New job · Airway" }];

export default function NewJob({ loaderData, actionData }: Route.ComponentProps) {
  const problems: Problems = actionData?.problems ?? {};
  const busy = useNavigation().state !== "idle";
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="w-full max-w-5xl grow p-5 max-md:p-3">
        <h1 className="text-2xl font-bold">New job</h1>
        <p className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-base">
          <Link to="/jobs/no-diagram" className="btn">
            Start without a diagram
          </Link>
          <span className="text-soft">
            for a vehicle whose circuit is not in the list: tap what you can see
          </span>
        </p>
        {loaderData.circuits.length === 0 && <FirstSteps />}
        <Form method="post" className="mt-5 grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-2">
          <input type="hidden" name="token" value={loaderData.token} />
          <Labelled name="vehicle" title="Vehicle" problem={problems.vehicle}>
            <select
              id="vehicle"
              name="vehicle"
              className="field w-full"
              defaultValue={loaderData.vehicleId ?? (loaderData.circuitId ? "new" : "")}
            >
              <option value="" disabled>
                Choose a vehicle{" "}
              </option>
              {loaderData.vehicles.map(({ id, label, model }) => (
                <option key={id} value={id}>
                  {model}, {label}
                </option>
              ))}
              <option value="new">New vehicle</option>
            </select>
          </Labelled>
          <CircuitFields problems={problems} loaderData={loaderData} />
          <Labelled name="words" title="Complaint" problem={problems.words}>
            <textarea id="words" name="words" className="field w-full" rows={3} maxLength={500} />
          </Labelled>
          <Labelled name="promised" title="Promised for" problem={problems.promised}>
            <input id="promised" type="datetime-local" name="promised" className="field w-full" />
          </Labelled>
          <button className="btn btn-main justify-self-start" type="submit" disabled={busy}>
            Start job
          </button>
        </Form>
      </main>
    </div>
  );
}

interface LabelledProps {
  name: string;
  title: string;
  problem: string | undefined;
  children: React.ReactNode;
}

function Labelled({ name, title, problem, children }: LabelledProps) {
  return (
    <div className="grid gap-1">
      <label htmlFor={name} className="font-semibold">
        {title}
      </label>
      {children}
      {problem && (
        <p role="alert" className="text-danger">
          {title}: {problem}
        </p>
      )}
    </div>
  );
}

interface CircuitFieldsProps {
  readonly problems: Problems;
  readonly loaderData: Route.ComponentProps["loaderData"];
}

/** The circuit, chosen by vehicle or directly. */
function CircuitFields({ problems, loaderData }: CircuitFieldsProps) {
  return (
    <fieldset className="sheet-card grid gap-4 p-4 lg:col-start-2 lg:row-span-4 lg:row-start-1">
      <legend className="px-1 text-base text-soft">For a new vehicle</legend>
      <Labelled name="label" title="Nickname or fleet number" problem={problems.label}>
        <input id="label" name="label" className="field w-full" maxLength={60} />
      </Labelled>
      <Labelled name="model" title="Make and model" problem={problems.model}>
        <input id="model" name="model" className="field w-full" maxLength={60} />
      </Labelled>
      <Labelled name="circuitId" title="Blower circuit" problem={problems.circuitId}>
        <select id="circuitId" name="circuitId" className="field w-full" defaultValue={loaderData.circuitId}>
          <option value="">choose</option>
          {loaderData.circuits.map(({ rowId: id, title }) => (
            <option key={id} value={id}>
              {title} ({id})
            </option>
          ))}
        </select>
      </Labelled>
    </fieldset>
  );
}

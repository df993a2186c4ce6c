import { airflowSeen } from "@core/predict/observations/airflowSeen";
import type { PlaceReading } from "@core/wiring/placeReading";
import { listCircuits } from "@db/repositories/circuits.server";
import { addSeenJob } from "@db/repositories/seenJobs.server";
import { listVehicles } from "@db/repositories/vehicles.server";
import { useEffect, useState } from "react";
import { data, Form, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { KnownVehicles } from "../seen/KnownVehicles";
import { PictureChoice } from "../seen/SeenPictures";
import { SpeedCount } from "../seen/SpeedCount";
import { StartStrip, type Told } from "../seen/StartStrip";
import { seenCarFrom } from "../seen/seenCarForm";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/seenNew";

const text = (most: number) => z.string().trim().max(most, `at most ${most} characters`).default("");
const form = z.looseObject({ token: z.uuid(), label: text(60), words: text(500) });
const told = z.object({ setting: z.string().regex(/^\d{1,2}$/), seen: z.enum(airflowSeen) });

export async function loader() {
  const [vehicles, circuits] = await Promise.all([listVehicles(), listCircuits()]);
  return {
    vehicles: vehicles.map(({ id, label, model }) => ({ id, name: `${model}, ${label}` })),
    circuits: circuits.map(({ rowId, title }) => ({ id: rowId, name: title })),
    token: randomId(),
  };
}

/** The complaint in a form: a field for each speed that somebody told of. */
const complaintOf = (fields: Readonly<Record<string, string>>): PlaceReading[] =>
  Object.entries(fields).flatMap(([name, seen]): PlaceReading[] => {
    const parsed = told.safeParse({ setting: name.replace(/^heard\./, ""), seen });
    if (!name.startsWith("heard.") || !parsed.success) return [];
    return [{ test: "airflow", key: "run", heard: true, ...parsed.data }];
  });

export async function action({ request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const parsed = form.safeParse(fields);
  const seen = seenCarFrom(fields);
  if (!parsed.success || !seen)
    return data(
      {
        problem: parsed.success
          ? "That could not be read. Load the page again."
          : (parsed.error.issues[0]?.message ?? ""),
      },
      { status: 422 },
    );
  const { token, label, words } = parsed.data;
  const complaint = complaintOf(fields).map((reading) => ({ id: randomId(), reading }));
  const id = await addSeenJob({ formToken: token, label, words, seen, complaint }, new Date());
  return redirect(`/no-diagram/${id}`);
}

export const meta: Route.MetaFunction = () => [{ title: "New job without a diagram · Airway" }];

export default function SeenNew({ loaderData, actionData }: Route.ComponentProps) {
  const { vehicles, circuits, token } = loaderData;
  const [speeds, setSpeeds] = useState<number | null>(null);
  const [speedPart, setSpeedPart] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<Told>({});
  const [name, setName] = useState("");
  const busy = useNavigation().state !== "idle";
  // Making the wirings ready takes seconds, about as long as the rest of this page does.
  useEffect(() => {
    if (speeds === null || speedPart === null) return;
    fetch(`/jobs/no-diagram/ready?${new URLSearchParams({ speeds: String(speeds), speedPart })}`).catch(
      () => undefined,
    );
  }, [speeds, speedPart]);
  const settings = Array.from({ length: (speeds ?? 0) + 1 }, (_, at) => String(at));
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="w-full max-w-5xl grow p-5 max-md:p-3">
        <h1 className="text-2xl font-bold">New job without a diagram</h1>
        <p className="mt-1 text-base text-soft">
          Tap what you can see. What you leave open has no effect. If you have the wiring diagram, start with{" "}
          <Link to="/jobs/new" className="underline">
            its circuit
          </Link>{" "}
          instead: that takes fewer tests.
        </p>
        <Form method="post" className="mt-4 grid gap-5">
          <input type="hidden" name="token" value={token} />
          <div className="max-w-xl">
            <div className="grid content-start gap-1">
              <label htmlFor="label" className="font-semibold">
                Vehicle <span className="font-normal text-soft">(may stay empty)</span>
              </label>
              <input
                id="label"
                name="label"
                maxLength={60}
                autoComplete="off"
                className="field w-full"
                value={name}
                onChange={({ target }) => setName(target.value)}
              />
              <KnownVehicles name={name} vehicles={vehicles} circuits={circuits} />
            </div>
          </div>
          <div className="grid gap-5 lg:grid-cols-2 lg:gap-x-8">
            <PictureChoice name="controls" title="The speed is chosen with" chosen={undefined} />
            <PictureChoice
              name="speedPart"
              title="The speeds come from"
              chosen={undefined}
              onChoose={setSpeedPart}
            />
            <SpeedCount
              speeds={undefined}
              onCount={(count) => {
                setSpeeds(count);
                setComplaint({});
              }}
            />
            <div className="grid grid-cols-2 gap-4">
              <PictureChoice name="blowers" title="Blowers" chosen="1" />
              <PictureChoice name="steering" title="Steering wheel" chosen={undefined} />
            </div>
          </div>
          {speeds === null ? (
            <p className="text-base text-soft">Count the speeds to say what each of them does.</p>
          ) : (
            <StartStrip settings={settings} told={complaint} onTold={setComplaint} />
          )}
          <div className="max-w-xl">
            <div className="grid content-start gap-1">
              <label htmlFor="words" className="font-semibold">
                Complaint in the customer's words{" "}
                <span className="font-normal text-soft">(may stay empty)</span>
              </label>
              <input id="words" name="words" maxLength={500} className="field w-full" />
            </div>
          </div>
          {actionData?.problem && (
            <p role="alert" className="text-danger">
              {actionData.problem}
            </p>
          )}
          <button type="submit" className="btn btn-main justify-self-start" disabled={busy} aria-busy={busy}>
            {busy ? "Starting…" : "Start with the first test"}
          </button>
        </Form>
      </main>
    </div>
  );
}

import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { type AccessPlan, parsePlan } from "@core/access/plan";
import type { Circuit } from "@core/circuit/circuit";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { type PartDescription, parsePart } from "@core/match/partDescription";
import { readingSchema } from "@core/predict/reading";
import { type Parsed, problemText } from "@core/problem/problem";
import { jobStages } from "@core/records/jobStage";
import { z } from "zod";
import type { Database } from "./database.server";
import { demoJobToken } from "./demoJobs";
import { demoPast, insertSoundProof, loadPast } from "./demoPast.server";
import { JobRow } from "./models/jobModels.server";
import { CircuitRow } from "./models/shelfModels.server";
import { addCircuit } from "./repositories/circuits.server";
import { insertFitting } from "./repositories/fittings.server";
import { addJob } from "./repositories/jobs.server";
import { insertPart } from "./repositories/parts.server";
import { insertPlan } from "./repositories/plans.server";
import { insertReading } from "./repositories/readings.server";
import { demoState, insertDemoState, insertShopName } from "./repositories/settings.server";
import { addVehicle } from "./repositories/vehicles.server";
import { enterParts } from "./repositories/works.server";

const worldSchema = z.strictObject({
  shop: z.string(),
  vehicles: z.array(z.strictObject({ label: z.string(), model: z.string(), circuitId: z.string() })),
  jobs: z.array(
    z.strictObject({
      vehicle: z.string(),
      hoursAgo: z.number(),
      /** When it is promised, in hours from the start of the demo. */
      promisedInHours: z.number().optional(),
      words: z.string(),
      stage: z.enum(jobStages),
      fitted: z.array(z.string()).optional(),
      found: z.string().optional(),
      proof: z.literal(true).optional(),
      readings: z.array(readingSchema),
    }),
  ),
});
type World = z.infer<typeof worldSchema>;

const minute = 60_000;
const hour = 60 * minute;

const readJson = (file: string): unknown => JSON.parse(readFileSync(file, "utf8"));

function checked<T>(name: string, parsed: Parsed<T>): T {
  if (!parsed.ok) throw new Error(`${name}: ${parsed.problems.map(problemText).join("; ")}`);
  return parsed.value;
}

function shippedIn<T>(folder: string, parse: (input: unknown) => Parsed<T>): T[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith(".json"))
    .map((name) => checked(name, parse(readJson(join(folder, name)))));
}

/** The shipped circuits, every one checked. */
export const shippedCircuits = (folder: string): Circuit[] => shippedIn(folder, parseCircuit);

/** The shipped access plans, every one checked. */
export const shippedPlans = (folder: string): AccessPlan[] => shippedIn(folder, parsePlan);

/** The parts of the demo catalogue, every one checked. */
export const shippedParts = (file: string): PartDescription[] =>
  z
    .array(z.unknown())
    .parse(readJson(file))
    .map((input) => checked(file, parsePart(input)));

/** Everything the demo workshop is loaded from, every file checked. */
export const demoContents = (folder: string) => ({
  world: worldSchema.parse(readJson(join(folder, "world.json"))),
  circuits: shippedCircuits(join(folder, "circuits")),
  plans: shippedPlans(join(folder, "plans")),
  parts: shippedParts(join(folder, "parts.json")),
  past: demoPast(folder),
});

/**
 * Loads the demo workshop into an empty database; any other database stays unchanged.
 * @param again true to load it even if a user has removed it before
 * @returns whether it was loaded
 */
export async function loadDemoWorld(
  database: Database,
  folder: string,
  now: Date,
  again = false,
): Promise<boolean> {
  if ((await CircuitRow.count()) > 0 || (!again && (await demoState()) === "removed")) return false;
  const { world, circuits, plans, parts, past } = demoContents(folder);
  await database.write(async (transaction) => {
    await insertShopName(world.shop, transaction);
    await insertDemoState("loaded", transaction);
    for (const circuit of circuits) await addCircuit(circuit, transaction);
    for (const plan of plans)
      for (const shelfId of plan.circuits ?? []) await insertPlan(shelfId, plan, "demo", transaction);
    for (const part of parts) await insertPart(part, transaction);
    const vehicles = new Map<string, number>();
    for (const vehicle of world.vehicles) {
      vehicles.set(vehicle.label, (await addVehicle(vehicle, transaction)).id);
    }
    for (const [index, job] of [...world.jobs].reverse().entries()) {
      const vehicle = world.vehicles.find(({ label }) => label === job.vehicle);
      const circuit = circuits.find(({ id }) => id === vehicle?.circuitId);
      if (!vehicle || !circuit) throw new Error(`demo job ${index}: no vehicle ${job.vehicle}`);
      const arrived = new Date(now.getTime() - job.hoursAgo * hour);
      const id = await addJob(
        {
          formToken: demoJobToken(index),
          vehicleId: vehicles.get(vehicle.label) ?? 0,
          circuitId: circuit.id,
          words: job.words,
          ...(job.promisedInHours === undefined ? {} : { promised: promisedIn(job.promisedInHours, now) }),
        },
        transaction,
        arrived,
      );
      await loadHistory({ job, id, circuit, arrived }, transaction);
    }
    await loadPast(past, { circuits, vehicles: world.vehicles, ids: vehicles, now }, transaction);
  });
  return true;
}

/** A full hour some hours from now, in UTC: the demo does not depend on the shop's zone. */
const promisedIn = (hours: number, now: Date): string =>
  `${new Date(now.getTime() + hours * hour).toISOString().slice(0, 13)}:00`;

type Transaction = Parameters<typeof insertSoundProof>[3];

interface History {
  readonly job: World["jobs"][number];
  readonly id: number;
  readonly circuit: Circuit;
  readonly arrived: Date;
}

async function loadHistory({ job, id, circuit, arrived }: History, transaction: Transaction): Promise<void> {
  const later = (minutes: number): Date => new Date(arrived.getTime() + minutes * minute);
  for (const [place, reading] of job.readings.entries()) {
    await insertReading(
      { id: `demo-${id}-${place}`, jobId: id, reading, takenAt: later(2 * place) },
      transaction,
    );
  }
  const done = job.stage === "proof-due" || job.stage === "closed";
  await JobRow.update(
    {
      stage: job.stage,
      ...(job.fitted ? { fitted: JSON.stringify(job.fitted) } : {}),
      ...(job.found ? { found: job.found } : {}),
      ...(done ? { fittedAt: later(60) } : {}),
      ...(job.stage === "closed" ? { closedAt: later(90) } : {}),
    },
    { where: { id }, transaction },
  );
  if (job.fitted && job.stage === "proof-due") {
    const looks = job.readings.filter(({ heard }) => !heard).length;
    const then = { p: 0.97, state: "settled", looks, minutes: 4 * looks } as const;
    await insertFitting(id, job.fitted, then, later(60), transaction);
  } else if (job.fitted) await enterParts(id, job.fitted, done ? "done" : "planned", later(55), transaction);
  if (job.proof) await insertSoundProof(circuit, id, later(70), transaction);
}

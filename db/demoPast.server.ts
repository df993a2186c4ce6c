import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Circuit } from "@core/circuit/circuit";
import { faultLabel } from "@core/diagnose/belief/learnedPrior";
import { repairKind } from "@core/diagnose/verdict/stopping";
import { catalogue } from "@core/fault/catalogue";
import { readingSchema } from "@core/predict/reading";
import { soundFinding } from "@core/proof/proofFinding";
import { proofSteps } from "@core/proof/proofRun";
import { causeKinds, closureSchema } from "@core/records/closure";
import { symptomOf } from "@core/records/symptom";
import { buildNetlist } from "@core/solve/buildNetlist";
import { familyName } from "@core/solve/checks/circuitFamily";
import type { Transaction } from "sequelize";
import { z } from "zod";
import { demoPastToken } from "./demoJobs";
import { JobRow } from "./models/jobModels.server";
import { insertClosure } from "./repositories/closures.server";
import { cameBack, insertFitting, settleFitting } from "./repositories/fittings.server";
import { addJob } from "./repositories/jobs.server";
import { insertProofs } from "./repositories/proofs.server";
import { insertReading } from "./repositories/readings.server";

const pastSchema = z.strictObject({
  jobs: z.array(
    z.strictObject({
      vehicle: z.string(),
      daysAgo: z.number(),
      words: z.string(),
      readings: z.array(readingSchema),
      fitted: z.array(z.string()).min(1),
      fault: z.string(),
      found: z.string(),
      cause: z.enum(causeKinds),
      causeWords: z.string().optional(),
      advice: z.string().optional(),
      stopgap: z.string().optional(),
      followUpInDays: z.number().optional(),
      p: z.number(),
      looks: z.number(),
      minutes: z.number(),
      /** Minutes of the fixed chart on the nominal vehicle with this fault; null if it ends at another part. */
      chartMinutes: z.number().nullable(),
      repairMinutes: z.number(),
      totalMinor: z.number(),
      /** Index in this list of the job whose repair it came back from. */
      comebackOf: z.number().optional(),
    }),
  ),
});

type PastJobs = z.infer<typeof pastSchema>["jobs"];

/** The jobs the demo workshop closed before, checked. */
export const demoPast = (folder: string): PastJobs =>
  pastSchema.parse(JSON.parse(readFileSync(join(folder, "past.json"), "utf8"))).jobs;

interface Shop {
  readonly circuits: readonly Circuit[];
  readonly vehicles: readonly { readonly label: string; readonly circuitId: string }[];
  /** Ids of the vehicles by label. */
  readonly ids: ReadonlyMap<string, number>;
  readonly now: Date;
}

const minute = 60_000;
const day = 24 * 60 * minute;

/** A final check with every step as expected, half a minute each. */
export async function insertSoundProof(
  circuit: Circuit,
  jobId: number,
  from: Date,
  transaction: Transaction,
): Promise<void> {
  await insertProofs(
    proofSteps(circuit).map((step, place) => ({
      id: `demo-${jobId}-${step.id}`,
      jobId,
      step: step.id,
      finding: soundFinding(step),
      judged: "right",
      takenAt: new Date(from.getTime() + (place * minute) / 2),
    })),
    transaction,
  );
}

/** Loads the jobs the demo workshop closed before: its records, its statistics, and what it has learned. */
export async function loadPast(jobs: PastJobs, shop: Shop, transaction: Transaction): Promise<void> {
  const made: number[] = [];
  for (const [place, job] of jobs.entries()) {
    const vehicle = shop.vehicles.find(({ label }) => label === job.vehicle);
    const circuit = shop.circuits.find(({ id }) => id === vehicle?.circuitId);
    const netlist = circuit ? buildNetlist(circuit, { lumpWires: true }) : null;
    const fault = netlist?.ok && catalogue(netlist.value).find(({ family }) => family === job.fault);
    if (!circuit || !netlist?.ok || !fault)
      throw new Error(`demo past ${place}: ${job.vehicle}, ${job.fault}`);
    // Vehicles arrive in the morning.
    const midnight = Math.floor(shop.now.getTime() / day) * day;
    const arrived = new Date(midnight - job.daysAgo * day + (8 * 60 + 25 * (place % 9)) * minute);
    const at = (minutes: number): Date => new Date(arrived.getTime() + minutes * minute);
    const first = job.comebackOf === undefined ? undefined : made[job.comebackOf];
    const id = await addJob(
      {
        formToken: demoPastToken(place),
        vehicleId: shop.ids.get(job.vehicle) ?? 0,
        circuitId: circuit.id,
        words: job.words,
        ...(first === undefined ? {} : { comebackOf: first }),
      },
      transaction,
      arrived,
    );
    made.push(id);
    for (const [number, reading] of job.readings.entries())
      await insertReading(
        { id: `demo-past-${place}-${number}`, jobId: id, reading, takenAt: at(2 * number) },
        transaction,
      );
    const { p, looks: tests, minutes } = job;
    const state = p >= 0.95 ? "settled" : "best-guess";
    await insertFitting(id, job.fitted, { p, state, looks: tests, minutes }, at(40), transaction);
    await settleFitting(id, "held", at(90), transaction);
    await insertSoundProof(circuit, id, at(50), transaction);
    if (first !== undefined) await cameBack(first, true, arrived, transaction);
    await insertClosure(
      id,
      {
        closure: closureSchema.parse({
          found: job.found,
          fault: job.fault,
          parts: job.fitted,
          cause: job.cause,
          causeWords: job.causeWords,
          advice: job.advice,
          stopgap: job.stopgap,
          followUpOn:
            job.followUpInDays === undefined
              ? undefined
              : new Date(arrived.getTime() + job.followUpInDays * day).toISOString().slice(0, 10),
          learn: true,
        }),
        ...faultLabel({ netlist: netlist.value }, fault),
        family: familyName(netlist.value),
        symptom: symptomOf(circuit, job.readings),
        looks: tests,
        minutes,
        chartMinutes: job.chartMinutes,
        repairKind: repairKind(circuit, job.fitted[0] ?? ""),
        repairMinutes: job.repairMinutes,
        totalMinor: job.totalMinor,
        closedAt: at(90),
      },
      transaction,
    );
    await JobRow.update(
      {
        stage: "closed",
        fitted: JSON.stringify(job.fitted),
        fittedAt: at(40),
        found: job.found,
        closedAt: at(90),
      },
      { where: { id }, transaction },
    );
  }
}

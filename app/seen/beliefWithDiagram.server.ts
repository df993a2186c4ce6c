import type { Repair } from "@core/fault/repair";
import { nameOfRepair } from "@words/partName";
import { diagnosisOf } from "../job/diagnosis.server";
import { jobViewAt } from "../job/jobView.server";

/** What may need work, with how likely that is. */
export interface NamedBelief {
  readonly name: string;
  readonly p: number;
}

/** Repairs are shown from this belief on. */
const leastShown = 0.005;

/** What the readings of a job say by its own circuit, likeliest first. */
export async function beliefWithDiagram(jobId: number): Promise<NamedBelief[]> {
  const view = await jobViewAt(String(jobId));
  const shares = new Map<Repair, number>();
  for (const { repair, p } of diagnosisOf(view).suspects) shares.set(repair, (shares.get(repair) ?? 0) + p);
  return [...shares]
    .filter(([, p]) => p >= leastShown)
    .sort((a, b) => b[1] - a[1])
    .map(([repair, p]) => ({ name: nameOfRepair(view.circuit, repair), p }));
}

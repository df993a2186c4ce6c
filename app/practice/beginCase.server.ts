import { randomInt } from "node:crypto";
import type { Circuit } from "@core/circuit/circuit";
import { parsedJson } from "@core/formats/parsedJson";
import { parsePracticeFile } from "@core/formats/practiceFile";
import {
  complaintOf,
  faultOf,
  type PracticeCase,
  type PracticeKind,
  type PracticeLevel,
} from "@core/practice/practiceCase";
import { problemText } from "@core/problem/problem";
import { findCircuit, keepPracticeCircuit, listCircuits, versionsOf } from "@db/repositories/circuits.server";
import { addLearner, beginCase } from "@db/repositories/practice.server";
import { shopTerms } from "@db/repositories/settings.server";
import { stoppingCosts } from "../job/jobView.server";
import { practiceCircuitAt, sampleCase } from "./practiceCircuits.server";

type Begun = { readonly problem: string } | { readonly id: string };

/** The learner who starts a case, and the id from the page; sent twice, it is one case. */
interface Beginner {
  readonly learner: string;
  readonly token: string;
}

async function store(
  { learner, token }: Beginner,
  circuitId: string,
  title: string,
  hidden: PracticeCase,
): Promise<Begun> {
  const { hourMinor, comebackMinor } = await shopTerms();
  const startedAt = new Date();
  await addLearner(learner, startedAt);
  await beginCase({
    id: token,
    learner,
    circuitId,
    title,
    hidden,
    startedAt,
    costs: stoppingCosts(hourMinor, comebackMinor, []),
  });
  return { id: token };
}

/** Draws a case on a circuit of the shelf, or on any. */
export async function beginSampled(
  who: Beginner,
  asked: { readonly circuit: string; readonly level: PracticeLevel; readonly kind: PracticeKind | null },
): Promise<Begun> {
  const circuits = await listCircuits();
  const chosen =
    circuits.find(({ rowId }) => rowId === asked.circuit) ??
    (circuits.length > 0 ? circuits[randomInt(circuits.length)] : undefined);
  if (!chosen) return { problem: "The shelf has no circuit to practise on." };
  const hidden = await sampleCase(await practiceCircuitAt(chosen.rowId), asked.level, asked.kind);
  if (!hidden)
    return { problem: "This circuit has no such case. Choose another circuit, difficulty or kind of fault." };
  return store(who, chosen.rowId, chosen.title, hidden);
}

/**
 * The row of a circuit that came with a case: the shelf's version if it is the same, otherwise one kept apart from the
 * shelf.
 */
async function rowOf(circuit: Circuit): Promise<string> {
  const body = JSON.stringify(circuit);
  for (const { rowId } of await versionsOf(circuit.id))
    if (JSON.stringify(await findCircuit(rowId)) === body) return rowId;
  return keepPracticeCircuit(circuit);
}

/** Starts a case from a trainer's file. */
export async function beginShared(who: Beginner, name: string, text: string): Promise<Begun> {
  const shared = parsePracticeFile(parsedJson(text));
  if (!shared.ok) return { problem: `${name}: ${shared.problems.slice(0, 3).map(problemText).join("; ")}` };
  const { circuit, title, ...own } = shared.value;
  const rowId = await rowOf(circuit);
  const { exact } = await practiceCircuitAt(rowId);
  const placed = faultOf(exact, own);
  const complaint = placed.ok ? complaintOf(exact, own, placed.value, 0) : [];
  if (complaint.length === 0) return { problem: `${name}: a driver would notice nothing with this fault.` };
  return store(who, rowId, title, { ...own, complaint });
}

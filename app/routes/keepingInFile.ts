import { data } from "react-router";
import { readIncoming } from "../importing/readIncoming.server";
import type { Route } from "./+types/keepingInFile";

/** Receives a bundle or a backup and inspects it in another process; nothing of the shop changes. */
export async function action({ request }: Route.ActionArgs) {
  const came = await readIncoming("shop", "readShop", request);
  if ("problems" in came)
    return data({ problem: `Nothing changed: ${came.problems.join("; ")}.` }, { status: came.status });
  const { faults } = came.answer;
  if (faults.length > 0) return data({ problem: `Nothing changed: ${faults.join("; ")}.` }, { status: 422 });
  return data({ problem: null });
}

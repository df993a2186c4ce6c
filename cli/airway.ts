import { resolve } from "node:path";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import { CandidateCache } from "@core/wiring/compiledCandidate";
import { runCommand } from "./command";

/** Number of compiled circuits kept while `lines` runs. */
const circuitsKept = 12;

process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});
process.exitCode = await runCommand(process.argv.slice(2), {
  root: resolve(process.env.AIRWAY_ROOT ?? process.cwd()),
  input: process.stdin,
  output: process.stdout,
  errors: process.stderr,
  circuits: new CircuitCache(circuitsKept),
  candidates: new CandidateCache(),
});

import { catalogue } from "@core/fault/catalogue";
import { type Fault, faultFromId } from "@core/fault/fault";
import { faultId } from "@core/fault/faultId";
import { practiceFile } from "@core/formats/practiceFile";
import { complaintOf, judgeCase, type PracticeKind, type PracticeLevel } from "@core/practice/practiceCase";
import { problemText } from "@core/problem/problem";
import { listCircuits } from "@db/repositories/circuits.server";
import { faultWords, repairName } from "@words/partName";
import { customerSays } from "./bayView.server";
import { freshSeed, practiceCircuitAt } from "./practiceCircuits.server";

/** What a trainer can set on a circuit: every fault of its catalogue, at a usual size that can be changed. */
export async function trainerView(asked: string | null) {
  const circuits = await listCircuits();
  const chosen = circuits.find(({ rowId }) => rowId === asked) ?? circuits[0];
  if (!chosen) return { circuits: [], rowId: null, faults: [] };
  const { exact } = await practiceCircuitAt(chosen.rowId);
  const families = new Map<string, Fault>();
  for (const { family, fault } of catalogue(exact)) if (!families.has(family)) families.set(family, fault);
  return {
    circuits: circuits.map(({ rowId, title }) => ({ rowId, title })),
    rowId: chosen.rowId,
    faults: [...families.values()].map(({ names, parts }) => ({
      id: faultId(names),
      words: `${repairName(exact.circuit, parts)}: ${faultWords(faultId(names))}`,
    })),
  };
}

/** The trainer's input for a case. */
export interface TrainerCase {
  readonly rowId: string;
  readonly title: string;
  readonly level: PracticeLevel;
  readonly kind: PracticeKind;
  /** One fault, or a cause and its victim: `M1:tight@1.6+R1.link:open`. */
  readonly fault: string;
}

/**
 * Number of vehicles tried before the page says that nobody would complain of this fault; about one driver in ten
 * complains of nothing, or of something else.
 */
const vehiclesTried = 9;

/** The complaint the trainee will hear, the generator's comment, and the file; or what is wrong with the input. */
export async function setCase(asked: TrainerCase) {
  const on = await practiceCircuitAt(asked.rowId);
  const fault = faultFromId(on.exact, asked.fault.trim());
  if (!fault.ok) return { problem: fault.problems.map(problemText).join("; "), set: null };
  const vehicles = Array.from({ length: vehiclesTried }, () => {
    const own = { level: asked.level, kind: asked.kind, fault: fault.value.names, seed: freshSeed() };
    return { own, complaint: complaintOf(on.exact, own, fault.value, 0) };
  });
  const complaining = vehicles.filter(({ complaint }) => complaint.length > 0);
  const [first] = complaining;
  if (!first || complaining.length <= vehiclesTried / 2)
    return { problem: "A driver would notice nothing with this fault.", set: null };
  const { own, complaint } = first;
  const judged = judgeCase(on, { ...own, complaint }, fault.value);
  const { circuit } = on.exact;
  return {
    problem: null,
    set: {
      says: customerSays(circuit.settings, complaint),
      verdict:
        typeof judged === "string"
          ? judged === "trivial"
            ? "Too easy for this difficulty: the complaint gives it away, or the part usually swapped cures it."
            : "Unfair for most learners: Airway does not find it on this vehicle with these tools."
          : `Airway finds it in ${judged.looks} ${judged.looks === 1 ? "test" : "tests"} after the complaint.`,
      name: `practice-${circuit.id}.json`,
      file: JSON.stringify(practiceFile({ ...own, title: asked.title, circuit }), null, 1),
    },
  };
}

import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { NumberColumn, WordColumn } from "../../predict/tables/nominalColumn";
import { perCircuitAnd } from "../../predict/tables/perCircuit";
import type { CandidateTest } from "./candidateTests";

/**
 * Two suspects are separable if their odds differ by this factor, or their displays by this many standard deviations.
 */
const apartOdds = 0.3;
const apartSigmas = 4;

function tellsByWord(column: WordColumn, i: number, j: number): boolean {
  const [a, b] = [column.at(i), column.at(j)];
  for (let outcome = 0; outcome < column.outcomes; outcome++) {
    const gap = (column.odds[a + outcome] as number) - (column.odds[b + outcome] as number);
    if (Math.abs(gap) > apartOdds) return true;
  }
  return false;
}

/** By the rows in which the two faults are present. */
function tellsByNumber({ variants }: CompiledCircuit, column: NumberColumn, i: number, j: number): boolean {
  const { model } = column;
  const a = column.at(variants[i]?.rows[0]?.row ?? 0);
  const b = column.at(variants[j]?.rows[0]?.row ?? 0);
  const gap = Math.abs(model.scale(a) - model.scale(b));
  return gap > apartSigmas * model.sigma(Math.min(Math.max(a, b), 100));
}

function tells(compiled: CompiledCircuit, { column }: CandidateTest, i: number, j: number): boolean {
  const own = column();
  return own.gives === "word" ? tellsByWord(own, i, j) : tellsByNumber(compiled, own, i, j);
}

/** Which pairs some test separates, found once for a circuit and a set of tools. */
class Pairs {
  private readonly apart = new Map<number, boolean>();
  /** A test that separated the last pairs usually separates the next. */
  private lucky = 0;

  constructor(
    private readonly compiled: CompiledCircuit,
    private readonly candidates: readonly CandidateTest[],
  ) {}

  told(i: number, j: number): boolean {
    const key = Math.min(i, j) * this.compiled.variants.length + Math.max(i, j);
    const known = this.apart.get(key);
    if (known !== undefined) return known;
    const found = i !== j && this.search(i, j);
    this.apart.set(key, found);
    return found;
  }

  private search(i: number, j: number): boolean {
    const { candidates, compiled } = this;
    for (let k = 0; k < candidates.length; k++) {
      const at = (this.lucky + k) % candidates.length;
      if (!tells(compiled, candidates[at] as CandidateTest, i, j)) continue;
      this.lucky = at;
      return true;
    }
    return false;
  }
}

const pairsOf = perCircuitAnd(
  (compiled, candidates: readonly CandidateTest[]) => new Pairs(compiled, candidates),
);

/**
 * Numbers suspects so that those no test can separate share a number.
 * @param suspects a variant of each, likeliest first
 * @param candidates every test the tools allow, one list for each set of tools
 */
export function indistinguishable(
  compiled: CompiledCircuit,
  suspects: readonly number[],
  candidates: readonly CandidateTest[],
): number[] {
  const pairs = pairsOf(compiled, candidates);
  const groups: number[] = [];
  let count = 0;
  suspects.forEach((suspect, i) => {
    const like = suspects.slice(0, i).findIndex((other) => !pairs.told(suspect, other));
    groups.push(like < 0 ? ++count : (groups[like] as number));
  });
  return groups;
}

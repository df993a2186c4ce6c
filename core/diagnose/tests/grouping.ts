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

const nothingTaken: ReadonlySet<string> = new Set();

/** The tests that separate pairs, found once for a circuit and a set of tools. */
class Pairs {
  /** By pair of suspects: the index of a test that separates them, or -1 if there is none. */
  private readonly apart = new Map<number, number>();
  /** A test that separated the last pairs usually separates the next. */
  private lucky = 0;

  constructor(
    private readonly compiled: CompiledCircuit,
    private readonly candidates: readonly CandidateTest[],
  ) {}

  /** Whether a test not yet taken separates a pair. */
  told(i: number, j: number, taken: ReadonlySet<string>): boolean {
    if (i === j) return false;
    const key = Math.min(i, j) * this.compiled.variants.length + Math.max(i, j);
    const known = this.apart.get(key) ?? this.search(i, j, nothingTaken);
    this.apart.set(key, known);
    if (known < 0 || !taken.has((this.candidates[known] as CandidateTest).key)) return known >= 0;
    const found = this.search(i, j, taken);
    if (found >= 0) this.apart.set(key, found);
    return found >= 0;
  }

  private search(i: number, j: number, taken: ReadonlySet<string>): number {
    const { candidates, compiled } = this;
    for (let k = 0; k < candidates.length; k++) {
      const at = (this.lucky + k) % candidates.length;
      const candidate = candidates[at] as CandidateTest;
      if (taken.has(candidate.key) || !tells(compiled, candidate, i, j)) continue;
      this.lucky = at;
      return at;
    }
    return -1;
  }
}

const pairsOf = perCircuitAnd(
  (compiled, candidates: readonly CandidateTest[]) => new Pairs(compiled, candidates),
);

/**
 * Numbers suspects so that those no further test can separate share a number. Two suspects are separable only if they are so
 * at all their sizes: a contact and the wire behind it differ in nothing but how bad they may be.
 * @param suspects the believed sizes of each as variants, the likeliest suspect first
 * @param candidates every test the tools allow, one list for each set of tools
 * @param taken keys of the tests already taken, which separate nothing any more
 */
export function indistinguishable(
  compiled: CompiledCircuit,
  suspects: readonly (readonly number[])[],
  candidates: readonly CandidateTest[],
  taken: ReadonlySet<string> = nothingTaken,
): number[] {
  const pairs = pairsOf(compiled, candidates);
  const groups: number[] = [];
  let count = 0;
  suspects.forEach((suspect, i) => {
    const like = suspects
      .slice(0, i)
      .findIndex((other) => suspect.some((own) => other.some((size) => !pairs.told(own, size, taken))));
    groups.push(like < 0 ? ++count : (groups[like] as number));
  });
  return groups;
}

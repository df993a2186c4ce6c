import type { CompiledCircuit } from "../predict/compiledCircuit";
import { faultKind } from "../predict/suspectOdds";

/** How often a shop proved a kind of fault: `{ kind: "link", mode: "open", n: 12 }`. */
export interface FaultCount {
  readonly kind: string;
  readonly mode: string;
  readonly n: number;
}

/** The table of priors weighs as much as this many jobs of one's own (judgement). */
const tableJobs = 60;

/** Kind and mode of each suspect, as counts name them; pairs join theirs with `+`. */
function labels(compiled: CompiledCircuit): readonly string[] {
  return compiled.remember("fault labels", () =>
    compiled.variants.map(({ fault: { names, parts } }) => {
      const kinds = names.map(({ where }, i) => faultKind(compiled, where, parts[i] ?? parts[0] ?? where));
      return `${kinds.join("+")} ${names.map(({ mode }) => mode).join("+")}`;
    }),
  );
}

/**
 * Priors by suspect, sharpened by a shop's own counts: the mean of a Dirichlet whose parameters are the
 * table's shares times `tableJobs`, plus the counts. Within a kind and mode the table's shares stay.
 */
export function learnedPriors(compiled: CompiledCircuit, counts: readonly FaultCount[]): Float64Array {
  const names = labels(compiled);
  const share = new Map<string, number>();
  compiled.variants.forEach(({ prior }, variant) => {
    const name = names[variant] ?? "";
    share.set(name, (share.get(name) ?? 0) + prior);
  });
  const met = counts.filter(({ kind, mode }) => share.has(`${kind} ${mode}`));
  const jobs = met.reduce((sum, { n }) => sum + n, 0);
  const listed = [...share.values()].reduce((sum, p) => sum + p, 0);
  const seen = new Map(met.map(({ kind, mode, n }) => [`${kind} ${mode}`, n]));
  return Float64Array.from(compiled.variants, ({ prior }, variant) => {
    const name = names[variant] ?? "";
    const own = share.get(name) ?? prior;
    const learned = (listed * (tableJobs * (own / listed) + (seen.get(name) ?? 0))) / (tableJobs + jobs);
    return (prior * learned) / own;
  });
}

import { faultKind } from "../../predict/suspectOdds";
import type { CompiledCircuit, Variant } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";

/** A fault as counts name it: `{ kind: "link", mode: "open" }`; pairs join theirs with `+`. */
export interface FaultLabel {
  readonly kind: string;
  readonly mode: string;
}

/** How often a shop confirmed a kind of fault: `{ kind: "link", mode: "open", n: 12 }`. */
export interface FaultCount extends FaultLabel {
  readonly n: number;
}

/**
 * The table of priors weighs as much as this many of the shop's jobs, and the shop's other jobs as much as this many
 * of a family's (judgement).
 */
export const tableJobs = 60;

/** Kind and mode of a suspect. */
export function faultLabel(
  compiled: Pick<CompiledCircuit, "netlist">,
  { fault: { names, parts } }: Pick<Variant, "fault">,
): FaultLabel {
  return {
    kind: names.map(({ where }, i) => faultKind(compiled, where, parts[i] ?? parts[0] ?? where)).join("+"),
    mode: names.map(({ mode }) => mode).join("+"),
  };
}

const nameOf = ({ kind, mode }: FaultLabel): string => `${kind} ${mode}`;

/** Kind and mode of all suspects, in their order. */
const labels = perCircuit((compiled): readonly string[] =>
  compiled.variants.map((variant) => nameOf(faultLabel(compiled, variant))),
);

/** One kind and mode before and after the shop's own counts. */
export interface LearntShare extends FaultLabel {
  readonly n: number;
  readonly before: number;
  readonly share: number;
  /** Standard deviation of the share after the counts. */
  readonly deviation: number;
}

/**
 * Shares updated by counts: the mean of a Dirichlet distribution whose parameters are the shares times `tableJobs`,
 * plus the counts; and the standard deviation of each (its marginal is a beta distribution).
 * @param shares of every kind and mode, summing to 1 @see A. Gelman et al., Bayesian Data Analysis, 3rd ed., ch. 3.4
 *   and appendix A
 */
export function dirichletShares(shares: ReadonlyMap<string, number>, counts: readonly FaultCount[]) {
  const met = counts.filter((own) => shares.has(nameOf(own)));
  const whole = tableJobs + met.reduce((sum, { n }) => sum + n, 0);
  const seen = new Map<string, number>();
  for (const own of met) seen.set(nameOf(own), (seen.get(nameOf(own)) ?? 0) + own.n);
  return new Map(
    [...shares].map(([name, before]) => {
      const alpha = tableJobs * before + (seen.get(name) ?? 0);
      const share = alpha / whole;
      return [
        name,
        {
          n: seen.get(name) ?? 0,
          before,
          share,
          deviation: Math.sqrt((share * (1 - share)) / (whole + 1)),
        },
      ] as const;
    }),
  );
}

/** The table's shares of every kind and mode on a circuit, summing to 1. */
function tableShares(compiled: CompiledCircuit): Map<string, number> {
  const names = labels(compiled);
  const shares = new Map<string, number>();
  let listed = 0;
  compiled.variants.forEach(({ prior }, variant) => {
    const name = names[variant] ?? "";
    shares.set(name, (shares.get(name) ?? 0) + prior);
    listed += prior;
  });
  return new Map([...shares].map(([name, own]) => [name, own / listed]));
}

/**
 * Priors by suspect, updated by a shop's own counts. Within a kind and mode the table's proportions stay. If the
 * circuit's own family has been counted, the shop's other counts update the table first, and the family's counts then
 * update that: a few jobs move it little, many dominate it.
 * @param counts of all other families
 * @param ofFamily counts of this circuit's family
 */
export function learnedPriors(
  compiled: CompiledCircuit,
  counts: readonly FaultCount[],
  ofFamily: readonly FaultCount[] = [],
): Float64Array {
  const names = labels(compiled);
  const table = tableShares(compiled);
  const learnt = learntShares(table, counts, ofFamily);
  return Float64Array.from(compiled.variants, ({ prior }, variant) => {
    const name = names[variant] ?? "";
    return (prior * (learnt.get(name)?.share ?? 0)) / (table.get(name) ?? 1);
  });
}

/** The same if there are any counts; null to use the table unchanged. */
export const priorsFrom = (
  compiled: CompiledCircuit,
  counts: readonly FaultCount[] = [],
  ofFamily: readonly FaultCount[] = [],
): Float64Array | null =>
  counts.length + ofFamily.length > 0 ? learnedPriors(compiled, counts, ofFamily) : null;

function learntShares(
  table: ReadonlyMap<string, number>,
  counts: readonly FaultCount[],
  ofFamily: readonly FaultCount[],
) {
  const shop = dirichletShares(table, counts);
  if (ofFamily.length === 0) return shop;
  return dirichletShares(new Map([...shop].map(([name, { share }]) => [name, share])), ofFamily);
}

/** What the counts changed on a circuit, by kind and mode: the table's share and the learned one. */
export function whatChanged(
  compiled: CompiledCircuit,
  counts: readonly FaultCount[],
  ofFamily: readonly FaultCount[],
): LearntShare[] {
  const table = tableShares(compiled);
  const learnt = learntShares(table, counts, ofFamily);
  const all = dirichletShares(table, [...counts, ...ofFamily]);
  return [...learnt].map(([name, { share, deviation }]) => {
    const space = name.indexOf(" ");
    return {
      kind: name.slice(0, space),
      mode: name.slice(space + 1),
      n: all.get(name)?.n ?? 0,
      before: table.get(name) ?? 0,
      share,
      deviation,
    };
  });
}

import type { EstimateLine, Rounding } from "./estimateLine";
import { apportioned, type RoundingRule, scaled, shareOf, toCoin } from "./rounding";

/** A line with its amounts; net and tax of all lines add up to the totals. */
export interface PricedLine extends EstimateLine {
  readonly discountMinor: number;
  readonly netMinor: number;
  readonly taxMinor: number;
}

export interface Priced {
  readonly lines: readonly PricedLine[];
  readonly netMinor: number;
  readonly taxMinor: number;
  /** Tax by rate, the highest rate first. */
  readonly taxes: readonly {
    readonly basisPoints: number;
    readonly onMinor: number;
    readonly taxMinor: number;
  }[];
  /** The amount added or taken off by rounding to the coin. */
  readonly coinMinor: number;
  readonly totalMinor: number;
}

/**
 * Prices lines: net after discount, tax, totals, and rounding to the coin. Rounded at the line, a total is the sum of
 * its lines. Rounded at the total, each rate's tax is computed once on its whole and shared over its lines by largest
 * remainders, so that the lines still add up. All amounts are whole minor units.
 */
export function priced(lines: readonly EstimateLine[], { rule, at, coinMinor }: Rounding): Priced {
  const net = lines.map((line) => netOf(line, rule));
  const rates = [...new Set(lines.map(({ taxBasisPoints }) => taxBasisPoints))].sort((a, b) => b - a);
  const tax = lines.map((line, i) => shareOf((net[i] as Net).netMinor, line.taxBasisPoints, rule));
  if (at === "total")
    for (const rate of rates) {
      const own = lines.flatMap(({ taxBasisPoints }, i) => (taxBasisPoints === rate ? [i] : []));
      const nets = own.map((i) => (net[i] as Net).netMinor);
      const whole = shareOf(
        nets.reduce((sum, one) => sum + one, 0),
        rate,
        rule,
      );
      // Shares among charges and refunds of both signs have no meaning, so such lines keep their own tax.
      const pieces = nets.every((one) => one >= 0) ? apportioned(whole, nets) : null;
      own.forEach((i, place) => {
        if (pieces) tax[i] = pieces[place] as number;
      });
    }
  const made = lines.map((line, i) => ({ ...line, ...(net[i] as Net), taxMinor: tax[i] as number }));
  const sum = (of: (line: PricedLine) => number, own: readonly PricedLine[] = made): number =>
    own.reduce((total, line) => total + of(line), 0);
  const [netMinor, taxMinor] = [sum((line) => line.netMinor), sum((line) => line.taxMinor)];
  const totalMinor = toCoin(netMinor + taxMinor, coinMinor);
  return {
    lines: made,
    netMinor,
    taxMinor,
    taxes: rates.map((rate) => {
      const own = made.filter(({ taxBasisPoints }) => taxBasisPoints === rate);
      return {
        basisPoints: rate,
        onMinor: sum((line) => line.netMinor, own),
        taxMinor: sum((line) => line.taxMinor, own),
      };
    }),
    coinMinor: totalMinor - netMinor - taxMinor,
    totalMinor,
  };
}

interface Net {
  readonly discountMinor: number;
  readonly netMinor: number;
}

function netOf({ quantityMilli, eachMinor, discountBasisPoints = 0 }: EstimateLine, rule: RoundingRule): Net {
  const gross = scaled(eachMinor, quantityMilli, 1000, rule);
  const discountMinor = shareOf(gross, discountBasisPoints, rule);
  return { discountMinor, netMinor: gross - discountMinor };
}

/** A line that differs between the estimate and the bill. */
export interface LineDifference {
  readonly title: string;
  readonly estimatedMinor: number | null;
  readonly billedMinor: number | null;
  readonly differenceMinor: number;
}

/** Compares a bill with its estimate line by line, matched by kind and title; net of tax. */
export function billDifference(estimate: Priced, bill: Priced): LineDifference[] {
  const key = ({ kind, title }: PricedLine): string => `${kind} ${title}`;
  const sums = (of: Priced) => {
    const made = new Map<string, { readonly title: string; readonly minor: number }>();
    for (const line of of.lines)
      made.set(key(line), { title: line.title, minor: (made.get(key(line))?.minor ?? 0) + line.netMinor });
    return made;
  };
  const [before, after] = [sums(estimate), sums(bill)];
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((own) => {
    const [estimated, billed] = [before.get(own), after.get(own)];
    const differenceMinor = (billed?.minor ?? 0) - (estimated?.minor ?? 0);
    if (differenceMinor === 0) return [];
    return [
      {
        title: (billed ?? estimated)?.title ?? own,
        estimatedMinor: estimated?.minor ?? null,
        billedMinor: billed?.minor ?? null,
        differenceMinor,
      },
    ];
  });
}

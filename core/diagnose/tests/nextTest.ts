import type { Tool } from "../../predict/observations/observation";
import { keyOfReading, type Look } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { activeSuspects, cellsOf } from "../belief/activeSuspects";
import type { Belief } from "../belief/belief";
import { Screening } from "../belief/screening";
import { minutesNow, openPlaces } from "./access";
import { candidateLooks, shortsBelief, shortsWorth } from "./candidateTests";
import { type Forecast, forecastLook } from "./forecast";
import { type School, schoolPrefers } from "./strategy";

export interface NextOptions {
  readonly tools: readonly Tool[];
  readonly school: School;
  /** How many looks to return. */
  readonly count: number;
}

const leastBits = 0.003;

/** Looks that are ranked in full after the first, coarse screening. */
const screened = 24;

/**
 * The looks worth most: expected information about the repair per minute, minutes counting places
 * not yet open. A look already taken is not offered again; ties go to the look that unplugs least.
 */
export function nextLooks(compiled: CompiledCircuit, belief: Belief, options: NextOptions): Forecast[] {
  const active = activeSuspects(compiled, belief);
  const open = openPlaces(compiled, belief.readings);
  const taken = new Set(belief.readings.map((reading) => keyOfReading(reading)));
  const screening = new Screening(compiled, belief, active);
  const fine = cellsOf(compiled, belief, active);
  const prefers = (look: Look): boolean => schoolPrefers(compiled, options.school, look, belief.readings);
  const shorts = shortsBelief(compiled, belief) > shortsWorth;
  const candidates: { look: Look; bits: number; minutes: number; accessMinutes: number }[] = [];
  for (const { key, look, cost, column } of candidateLooks(compiled, options.tools, shorts)) {
    if (taken.has(key)) continue;
    const bits = screening.bits(column());
    if (bits <= leastBits) continue;
    const minutes = minutesNow(cost, open);
    candidates.push({ look, bits, minutes, accessMinutes: minutes - cost.minutes });
  }
  candidates.sort(byWorth);
  const kept = [
    ...(options.school === "least-time" ? [] : candidates.filter(({ look }) => prefers(look)).slice(0, 5)),
    ...candidates.slice(0, screened),
  ];
  const ranked = [...new Set(kept)]
    .map(({ look, minutes, accessMinutes }) => ({
      look,
      minutes,
      accessMinutes,
      ...forecastLook(compiled, active, fine, look),
      repairs: active.repairs,
      entropy: active.entropy,
    }))
    .filter(({ bits }) => bits > leastBits)
    .sort(byWorth);
  const first =
    options.school === "least-time"
      ? undefined
      : ranked.find(({ look, bits }) => bits > preferredBits && prefers(look));
  const ordered = first ? [first, ...ranked.filter((forecast) => forecast !== first)] : ranked;
  return ordered.slice(0, options.count).map((forecast) => ({ ...forecast, outcomes: forecast.outcomes() }));
}

/** A school takes its favourite look first only while that tells something. */
const preferredBits = 0.03;

const byWorth = (
  a: { look: Look; bits: number; minutes: number },
  b: { look: Look; bits: number; minutes: number },
): number => worth(b) - worth(a) || hands(a.look) - hands(b.look);

/**
 * Bits a minute, every look charged minutes of attention besides: without them many near-empty looks at
 * an open place go before the one that decides, and the whole takes longer (measured on the fleet).
 */
const worth = ({ bits, minutes }: { bits: number; minutes: number }): number =>
  bits / (minutes + attentionMinutes);
export const attentionMinutes = 8;
const hands = (look: Look): number => (look.unplugged?.length ?? 0) + (look.bridged?.length ?? 0);

import type { Circuit } from "@core/circuit/circuit";
import { mostAmps } from "@core/match/newPart";
import { listedFor, type PartDescription } from "@core/match/partDescription";
import { matchParts } from "@core/match/partMatch";
import { leadMap, plugOf } from "@core/match/spliceLeads";
import { supersededBy } from "@core/match/supersession";
import type { Job } from "@db/repositories/jobs.server";
import { listParts, matchesOf } from "@db/repositories/parts.server";
import { partMatchWords } from "@words/partMatchWords";
import { repairName } from "@words/partName";
import { leadMapWords } from "@words/spliceWords";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import { listedOld, partNumbered } from "./jobMatches.server";
import type { PartPlace } from "./partForm";

/** Kinds of part that are sold with a number. */
const boxed: ReadonlySet<string> = new Set(["motor", "resistor", "module", "relay", "selector"]);

/** What a circuit says about a part's place. */
export function placeOf(circuit: Circuit, id: string): PartPlace {
  const part = circuit.parts.find((own) => own.id === id);
  const plug = plugOf(circuit, id);
  return {
    coils:
      part?.kind === "resistor"
        ? part.elements.flatMap((coil) => ("thermalLink" in coil ? [] : [{ from: coil.from, to: coil.to }]))
        : [],
    pins: Object.keys(circuit.connectors.find((own) => own.id === plug)?.pins ?? {}),
  };
}

/** Everything the parts page shows: the new part compared with the old one, and with the circuit. */
export async function partsView(job: Job, circuit: Circuit, asked: string | null, likely: readonly string[]) {
  const [catalogue, matches] = await Promise.all([listParts(), matchesOf(job.id)]);
  const choices = circuit.parts.filter(({ kind }) => boxed.has(kind));
  const part =
    choices.find(({ id }) => id === asked) ?? choices.find(({ id }) => likely.includes(id)) ?? choices[0];
  if (!part) return null;
  const stored = matches.find((own) => own.part === part.id);
  const same = catalogue.filter(({ kind }) => kind === part.kind);
  const old = partNumbered(catalogue, stored?.oldNumber) ?? listedOld(catalogue, circuit, part.id);
  const chain = old ? supersededBy(catalogue, old.number) : null;
  const today = chain && chain.kind === "current" && chain.number !== old?.number ? chain.number : null;
  const fresh = partNumbered(catalogue, stored?.newNumber) ?? partNumbered(catalogue, today);
  const overrides = stored?.overrides ?? [];
  const match =
    old && fresh
      ? matchParts(circuit, part.id, old, fresh, catalogue, new Set(overrides.map(({ feature }) => feature)))
      : null;
  const plug = plugOf(circuit, part.id);
  const withLeads = catalogue.filter(({ leads }) => leads);
  const leads = fresh?.leads && plug ? leadMap(circuit, plug, fresh.leads, mostAmps(circuit)) : null;
  return {
    part: part.id,
    kind: part.kind as PartDescription["kind"],
    place: placeOf(circuit, part.id),
    parts: choices.map(({ id }) => ({ id, name: repairName(circuit, [id]) })),
    /** Described parts of this kind, those listed for this place first. */
    catalogue: [...same, ...withLeads.filter((own) => own.kind === "connector" && own !== fresh)]
      .map((own) => ({
        number: own.number,
        title: own.title,
        listed: listedFor(own, circuit.id, part.id),
        replacedBy: own.replacedBy ?? null,
      }))
      .sort((a, b) => Number(b.listed) - Number(a.listed)),
    old,
    fresh,
    /** The new part is stored with the job, so that the work list, repair and estimate go by it. */
    isChosen: fresh !== null && stored?.newNumber === fresh.number,
    chain: chain?.chain ?? [],
    circle: chain?.kind === "circle",
    match: match && partMatchWords(match),
    plug,
    leads: leads && leadMapWords(leads),
    overrides: overrides.map(({ feature, words, at }) => ({
      feature,
      words,
      when: dayText(new Date(at), shopZone()),
    })),
  };
}

export type PartsData = NonNullable<Awaited<ReturnType<typeof partsView>>>;

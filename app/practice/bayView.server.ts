import { speedWords } from "@core/diagnose/explain/pathBoard";
import { theCar } from "@core/fault/repair";
import { type PracticeAct, PracticeBay, repairCost } from "@core/practice/practiceBay";
import type { PracticeCircuit } from "@core/practice/practiceCase";
import { observations } from "@core/predict/observations/index";
import type { Reading } from "@core/predict/reading";
import { listed, minutesText, percent, tenthsText } from "@core/units/wording";
import { actsOf, findCase, type StoredCase } from "@db/repositories/practice.server";
import { shopTerms } from "@db/repositories/settings.server";
import { partName, repairName } from "@words/partName";
import { airflowWords } from "@words/stateWords";
import { setupText } from "@words/tests/setupText";
import { evidenceText, resultText, testText } from "@words/tests/testText";
import { data } from "react-router";
import { layoutOf } from "../sheet/layouts.server";
import { priceText } from "../text/money";
import { randomId } from "../text/randomId";
import { practiceCircuitAt } from "./practiceCircuits.server";

/** A case of an address; answers 404 if there is none. */
export async function caseAt(id: string | undefined): Promise<StoredCase> {
  const found = await findCase(id ?? "");
  if (!found) throw data("There is no such case.", { status: 404 });
  return found;
}

/** The bay of a case as it stands. */
export async function bayAt(id: string | undefined) {
  const stored = await caseAt(id);
  const on = await practiceCircuitAt(stored.circuitId);
  const acts = await actsOf(stored.id);
  return { stored, on, acts, bay: new PracticeBay(on, stored.hidden, acts, stored.costs) };
}

/** The actions so far, as the bay lists them. */
export function actWords(
  { exact }: PracticeCircuit,
  act: PracticeAct,
): { readonly what: string; readonly came: string } {
  const { circuit } = exact;
  switch (act.act) {
    case "look":
      return { what: evidenceText(circuit, act.reading), came: resultText(act.reading) };
    case "open":
      return { what: `Opened ${act.place.replaceAll("-", " ")}`, came: "" };
    case "ask":
      return {
        what: "Asked Airway",
        came: act.look
          ? `${testText(circuit, act.look)}, ${setupText(circuit, act.look)}`
          : "no test left that is worth its time",
      };
    case "fit":
      return { what: `Fitted ${repairName(circuit, act.parts)}`, came: `${percent(act.odds)} sure` };
    case "drive":
      return { what: "Handed over", came: act.held ? "it held" : "it came back" };
    case "give-up":
      return { what: "Gave up", came: "" };
  }
}

/** The customer's words, in one or two sentences. */
export function customerSays(settings: readonly string[], complaint: readonly Reading[]): string {
  const said = speedWords(complaint);
  const groups = new Map<string, string[]>();
  for (const setting of settings.slice(1)) {
    const word = said.get(setting);
    if (word) groups.set(word, [...(groups.get(word) ?? []), setting]);
  }
  const onSpeeds = [...groups].map(([word, speeds]) =>
    groups.size === 1
      ? word === "normal"
        ? "it blows on every speed"
        : `${word === "none" ? "nothing at all" : airflowWords[word as "weak"]} on every speed`
      : `${word === "none" ? "nothing" : airflowWords[word as "weak"]} on ${listed(speeds)}`,
  );
  const off = said.get(settings[0] ?? "off");
  const noise = complaint.find((reading) => reading.test === "listen");
  const key = complaint.find((reading) => reading.test === "airflow" && reading.key === "off");
  const rear = complaint.filter((reading) => reading.test === "airflow" && reading.selectors);
  const sentences = [
    onSpeeds.join(", "),
    ...(off && off !== "none" ? ["it keeps blowing when switched off"] : []),
    ...(key?.test === "airflow" && key.seen !== "none" ? ["it blows even with the key out"] : []),
    ...(noise?.test === "listen" && noise.seen !== "quiet" ? [`there is a ${noise.seen}`] : []),
    ...(rear.length > 0
      ? [
          `the other blower: ${rear
            .flatMap((reading) =>
              reading.test === "airflow"
                ? [`${airflowWords[reading.seen]} on ${Object.values(reading.selectors ?? {}).join()}`]
                : [],
            )
            .join(", ")}`,
        ]
      : []),
  ];
  return `${sentences.map((own) => `${own.charAt(0).toUpperCase()}${own.slice(1)}`).join(". ")}.`;
}

/**
 * What the bay's page is sent: the circuit, the actions and their results. Nothing in it comes from the hidden fault
 * except the readings themselves.
 */
export async function bayView(id: string | undefined) {
  const { stored, on, acts, bay } = await bayAt(id);
  const { circuit } = on.exact;
  const { standing } = bay;
  const { currency } = await shopTerms();
  const lastAct = acts.at(-1);
  const listening = lastAct?.act === "look" && lastAct.reading.test === "listen" ? lastAct : null;
  const fittable = [
    ...circuit.parts.flatMap(({ id: own, kind }) => (kind === "splice" ? [] : [own])),
    ...circuit.connectors.map(({ id: own }) => own),
    ...circuit.wires.map(({ id: own }) => own),
    // The filter and the duct, which are not in any circuit.
    theCar,
  ];
  return {
    id: stored.id,
    learner: stored.learner,
    title: stored.title,
    level: stored.hidden.level,
    token: randomId(),
    circuit,
    layout: layoutOf(on.compiled.netlist),
    says: customerSays(circuit.settings, standing.complaint),
    heard: Object.fromEntries(
      [...speedWords(standing.complaint)].map(([setting, word]) => [setting, airflowWords[word]]),
    ),
    minutes: standing.minutes,
    money: priceText(standing.moneyMinor, currency),
    comebacks: standing.comebacks,
    over: standing.over,
    fitted: standing.fitted,
    places: circuit.places.map(({ id: place, minutes, parts }) => ({
      id: place,
      words: place.replaceAll("-", " "),
      minutes: minutesText(minutes),
      parts,
      open: standing.open.has(place),
    })),
    acts: acts.map((act, index) => ({
      number: index + 1,
      act: act.act,
      ...actWords(on, act),
      minutes: act.minutes === 0 ? "" : tenthsText(act.minutes),
      // The test Airway suggested can be taken as the vehicle stands, with the leads where they are.
      asked: act.act === "ask" && act.look ? JSON.stringify(act.look) : null,
    })),
    parts: fittable.map((own) => {
      const cost = repairCost(on.compiled, [own], stored.costs);
      return {
        id: own,
        words: own === theCar ? partName(circuit, own) : `${own}, ${partName(circuit, own)}`,
        price: priceText(cost.priceMinor, currency),
        minutes: tenthsText(cost.minutes),
      };
    }),
    testMinutes: Object.fromEntries(observations.map(({ name, minutes }) => [name, minutesText(minutes)])),
    /** Switches with settings of their own, for a second blower. */
    switches: circuit.parts.flatMap((part) =>
      part.kind === "selector" && part.settings
        ? [{ id: part.id, settings: part.settings, words: part.place ?? `switch ${part.id}` }]
        : [],
    ),
    sound:
      listening?.reading.test === "listen"
        ? { number: acts.length, rpm: listening.rpm ?? 0, noise: listening.reading.seen }
        : null,
  };
}

export type BayData = Awaited<ReturnType<typeof bayView>>;

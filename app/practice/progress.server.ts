import { brierOverTime, brierParts, type Said } from "@core/practice/calibration";
import { curriculum, passedAfter } from "@core/practice/curriculum";
import { saidOf } from "@core/practice/debrief";
import { type PracticeAct, scoreOf } from "@core/practice/practiceBay";
import { faultOf } from "@core/practice/practiceCase";
import { reliability, sumsOf } from "@core/records/reliability";
import { buildNetlist } from "@core/solve/buildNetlist";
import { minutesText } from "@core/units/wording";
import { findCircuit } from "@db/repositories/circuits.server";
import { actsOf, answersOf, casesOf, recallsOf, type StoredCase } from "@db/repositories/practice.server";
import { shopTerms } from "@db/repositories/settings.server";
import { lessonWords } from "@words/lessonWords";
import { dayText } from "../text/clock";
import { priceText } from "../text/money";
import { shopZone } from "../text/shopZone.server";

/** The odds given in a finished case, and whether they were right. */
async function saidIn(stored: StoredCase, acts: readonly PracticeAct[]): Promise<Said[]> {
  // The circuit alone, so that the progress page does not wait for compilation.
  const circuit = await findCircuit(stored.circuitId);
  const netlist = circuit ? buildNetlist(circuit) : null;
  const fault = netlist?.ok ? faultOf(netlist.value, stored.hidden) : null;
  return fault?.ok ? saidOf(acts, fault.value.parts) : [];
}

/** A learner's progress: lessons and what is due, cases, and the accuracy of the odds. */
export async function progressOf(learner: string, now: Date) {
  const [answers, recalls, cases, { currency }] = await Promise.all([
    answersOf(learner),
    recallsOf(learner),
    casesOf(learner),
    shopTerms(),
  ]);
  const zone = shopZone();
  const done = await Promise.all(cases.map(async (own) => ({ own, acts: await actsOf(own.id) })));
  const lines = done.map(({ own, acts }) => {
    const standing = scoreOf(own.hidden, acts, own.costs);
    return {
      id: own.id,
      title: own.title,
      level: own.hidden.level,
      began: dayText(own.startedAt, zone),
      over: standing.over,
      minutes: minutesText(Math.max(0.5, standing.minutes)),
      money: priceText(standing.moneyMinor, currency),
      comebacks: standing.comebacks,
    };
  });
  // The oldest first, to show whether the odds improve with practice.
  const finished = done.filter(({ own }) => own.endedAt).reverse();
  const said = (await Promise.all(finished.map(({ own, acts }) => saidIn(own, acts)))).flat();
  return {
    learner,
    lessons: curriculum.map(({ id, forms }) => {
      const { title } = lessonWords[id];
      const items = Object.keys(forms).map((form) => `${id}/${form}`);
      const own = recalls.filter(({ item }) => items.includes(item));
      const given = answers.filter(({ item }) => items.includes(item));
      const due = own.filter(({ dueAt }) => dueAt <= now).map(({ item }) => item);
      const done = items.every((item) => {
        const last = given.filter((answer) => answer.item === item).slice(-passedAfter);
        return last.length === passedAfter && last.every(({ right }) => right);
      });
      const next = own.map(({ dueAt }) => dueAt).sort((a, b) => a.getTime() - b.getTime())[0];
      return {
        id,
        title,
        done,
        answered: given.length,
        right: given.filter(({ right }) => right).length,
        due,
        next: next ? dayText(next, zone) : null,
      };
    }),
    cases: lines,
    said: said.length,
    calibration:
      said.length === 0
        ? null
        : {
            ...brierParts(said),
            overTime: brierOverTime(said),
            bins: reliability(sumsOf(said.map(({ p, right }) => ({ p, held: right })))).bins,
          },
  };
}

export type Progress = Awaited<ReturnType<typeof progressOf>>;

import { airflowWords } from "./airflow";
import { ampsWords } from "./amps";
import { historyWords } from "./history";
import { inspectWords } from "./inspect";
import { lamploadWords } from "./lampload";
import { lightWords } from "./light";
import { listenWords } from "./listen";
import { ohmsWords } from "./ohms";
import { rippleWords } from "./ripple";
import { smellWords } from "./smell";
import { spinWords } from "./spin";
import { swapWords } from "./swap";
import { tapWords } from "./tap";
import { voltsWords } from "./volts";
import type { TestWording } from "./wording";

/** The words for every test, in the order of the lists of tests. */
export const testWordings: readonly TestWording[] = [
  lightWords,
  voltsWords,
  ohmsWords,
  airflowWords,
  inspectWords,
  ampsWords,
  listenWords,
  smellWords,
  spinWords,
  tapWords,
  lamploadWords,
  swapWords,
  rippleWords,
  historyWords,
];

const byName: ReadonlyMap<string, TestWording> = new Map(testWordings.map((own) => [own.name, own]));

/**
 * The words for a test.
 * @throws RangeError for a name that is not a test
 */
export function wordingOf(name: string): TestWording {
  const found = byName.get(name);
  if (!found) throw new RangeError(`no words for a test called "${name}"`);
  return found;
}

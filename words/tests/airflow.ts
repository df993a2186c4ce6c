import type { Test } from "@core/predict/reading";
import { airflowWords as seenWords } from "../stateWords";
import { speedText } from "./setupText";
import { wording } from "./wording";

const settingText = ({ setting, selectors }: Test): string =>
  Object.entries(selectors ?? {})
    .map(([id, position]) => `switch ${id} at ${position}`)
    .join(", ") || speedText(setting ?? "off");

const isAirflow = (seen: string): seen is keyof typeof seenWords => Object.hasOwn(seenWords, seen);

export const airflowWords = wording("airflow", {
  title: "air at the vent",
  short: "air",
  action: "Feel the air",
  picks: [],
  toDo: (test) => `air on ${settingText(test)}`,
  result: ({ seen }) => seenWords[seen],
  word: (seen) => (isAirflow(seen) ? seenWords[seen] : seen),
  card: (_circuit, test) =>
    test.bridged
      ? {
          before: "Feed the motor directly through fused leads and feel the air:",
          points: [test.at ?? ""],
          also: "A lead without a fuse can burn. Keep your fingers out of the wheel.",
        }
      : { before: `Feel the air on ${settingText(test)}`, points: test.at ? [test.at] : [] },
});

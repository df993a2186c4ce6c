import type { Test } from "@core/predict/reading";
import { wording } from "./wording";

const settingText = ({ setting, selectors }: Test): string =>
  Object.entries(selectors ?? {})
    .map(([id, position]) => `${id} ${position}`)
    .join(", ") ||
  (setting ?? "off");

export const airflowWords = wording("airflow", {
  title: "air at the vent",
  short: "air",
  action: "Air at the vent",
  picks: [],
  toDo: ({ setting }) => `airflow on ${setting ?? "off"}`,
  result: ({ seen }) => seen,
  card: (_circuit, test, setup) =>
    test.bridged
      ? {
          before: "Feed the motor directly by fused leads and feel the air:",
          points: [test.at ?? ""],
          how: `${setup} A lead without a fuse burns; keep fingers out of the wheel.`,
        }
      : { before: `Feel the air on ${settingText(test)}`, points: test.at ? [test.at] : [], how: setup },
});

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
  toDo: (test, name) => {
    const plugs = (test.unplugged ?? []).map(name).join(", ");
    if (test.bridged && test.key === "run")
      return `air on ${settingText(test)} with fused leads past ${plugs || "the plug"}`;
    if (test.bridged) return "air with the motor on fused leads";
    return `air on ${settingText(test)}${plugs ? ` with ${plugs} unplugged` : ""}`;
  },
  result: ({ seen }) => seenWords[seen],
  word: (seen) => (isAirflow(seen) ? seenWords[seen] : seen),
  card: (_circuit, test) => {
    const [plug] = test.unplugged ?? [];
    if (test.bridged && test.key === "run")
      return {
        before: `Pull the plug, join each of its wires to the part's own pin with a fused lead, and feel the air on ${settingText(test)}:`,
        points: [plug ?? ""],
        also: "If it runs now, the plug's contacts are bad. A lead without a fuse can burn.",
      };
    if (test.bridged)
      return {
        before: "Feed the motor directly through fused leads and feel the air:",
        points: [test.at ?? ""],
        also: "A lead without a fuse can burn. Keep your fingers out of the wheel.",
      };
    if (plug !== undefined)
      return {
        before: `With it running on ${settingText(test)}, pull the plug and feel the air:`,
        points: [plug],
      };
    return { before: `Feel the air on ${settingText(test)}`, points: test.at ? [test.at] : [] };
  },
});

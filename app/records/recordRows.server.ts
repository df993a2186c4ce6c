import { minutesText } from "@core/units/wording";
import type { RecordLine } from "@db/repositories/records.server";
import { shopTerms } from "@db/repositories/settings.server";
import { faultLabelWords } from "@words/partName";
import { stageWords } from "@words/stateWords";
import { dayText } from "../text/clock";
import { priceText } from "../text/money";
import { shopZone } from "../text/shopZone.server";
import type { RecordRow } from "./RecordTable";

/** Jobs as the records' table shows them. */
export async function recordRows(lines: readonly RecordLine[]): Promise<RecordRow[]> {
  const zone = shopZone();
  const { currency } = await shopTerms();
  return lines.map((line) => ({
    id: line.id,
    vehicle: line.vehicle,
    circuit: line.circuit,
    words: [line.words, line.found].filter(Boolean).join(" → "),
    came: dayText(line.came, zone),
    closed: line.closed ? dayText(line.closed, zone) : null,
    fault: line.kind && line.mode ? faultLabelWords(line.kind, line.mode) : "",
    minutes: line.minutes === null ? "" : minutesText(line.minutes),
    money: line.totalMinor === null ? "" : priceText(line.totalMinor, currency),
    outcome: line.cameBack ? "came back" : line.stage === "closed" ? "held" : stageWords[line.stage],
    back: line.cameBack,
  }));
}

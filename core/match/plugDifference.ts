import { adaptable, harmless, type PartDifference, wrong } from "./difference";
import type { PartDescription } from "./partDescription";

/** Millimetres a tail of wires may be shorter and still reach the car's plug (common practice, no source). */
const slackMm = 30;

/**
 * Differences of the plug, of its place on the part and of the wires between (common practice, no source). A plug of
 * another shape is made good by the leads or the loose lead that come with the part.
 */
export function plugDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (!old.plug || !fresh.plug) return leadDifference(old, fresh, true);
  const shape = shapeDifferences(old, fresh);
  return [...shape, ...seatDifferences(old, fresh), ...leadDifference(old, fresh, shape.length === 0)];
}

function shapeDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  const [before, after] = [old.plug, fresh.plug];
  if (!before || !after) return [];
  const { leads = [] } = fresh;
  const loose = fresh.lead === true;
  if (before.pins !== after.pins) {
    const pins = { oldPins: before.pins, freshPins: after.pins };
    if (leads.length > 0)
      return [adaptable("pins", { code: "pins-by-splice", ...pins }, "splice-leads", leads.length)];
    return [
      loose
        ? adaptable("pins", { code: "pins-by-lead", ...pins }, "fit-lead")
        : wrong("pins", { code: "pins-do-not-fit", ...pins }),
    ];
  }
  if (!before.tab || !after.tab || before.tab === after.tab) return [];
  const tabs = { old: before.tab, fresh: after.tab };
  if (leads.length > 0)
    return [adaptable("tab", { code: "tab-by-splice", ...tabs }, "splice-leads", leads.length)];
  return [
    loose
      ? adaptable("tab", { code: "tab-by-lead", ...tabs }, "fit-lead")
      : wrong("tab", { code: "tab-turned", ...tabs }),
  ];
}

/** The same plug elsewhere on the part, or at the end of a longer tail, connects just as well. */
function seatDifferences({ plug: old }: PartDescription, { plug: fresh }: PartDescription): PartDifference[] {
  const found: PartDifference[] = [];
  if (old?.seat && fresh?.seat && old.seat !== fresh.seat)
    found.push(harmless("plug", { code: "plug-elsewhere", old: old.seat, fresh: fresh.seat }));
  if (old?.tailMm === undefined || fresh?.tailMm === undefined || old.tailMm === fresh.tailMm) return found;
  const tails = { oldMm: old.tailMm, freshMm: fresh.tailMm };
  if (fresh.tailMm > old.tailMm) return [...found, harmless("tail", { code: "tail-longer", ...tails })];
  return [
    ...found,
    old.tailMm - fresh.tailMm <= slackMm
      ? harmless("tail", { code: "tail-shorter", ...tails })
      : adaptable("tail", { code: "tail-shorter", ...tails }, "lengthen-leads", fresh.pins),
  ];
}

function leadDifference(old: PartDescription, fresh: PartDescription, plugFits: boolean): PartDifference[] {
  if (old.lead === undefined || fresh.lead === undefined || old.lead === fresh.lead || !plugFits) return [];
  return [
    old.lead
      ? adaptable("lead", { code: "lead-missing" }, "carry-lead")
      : harmless("lead", { code: "lead-not-needed" }),
  ];
}

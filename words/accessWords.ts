import { fastenerText, screwsBack, sortBack, sortName } from "@core/access/fastener";
import type { Fastener } from "@core/access/fastenerSchema";
import type { PlanDoubt } from "@core/access/planFinding";
import type { BackRule, BackWork } from "@core/access/refitting";
import type { TrayCall } from "@core/access/tray";
import { listed } from "@core/units/wording";
import { adaptationTitle } from "./adaptationWords";

/** The name of a refitting step. */
export function backTitle(work: BackWork): string {
  if (work.does === "test")
    return `Test ${work.beforePanels ? "before the panels go back on" : "now"}: key on, off, every speed up and down, and check that off stays off`;
  if (work.does === "adapt") return adaptationTitle(work.fitting.adaptation);
  const { step } = work;
  if (step.back) return step.back;
  return step.kind === "battery-off" ? "Reconnect the battery negative" : reversedTitle(step.title);
}

/** First words of a removal, and of its refitting. */
const reversals: readonly (readonly [RegExp, string])[] = [
  [/^Unplug /, "Plug in "],
  [/^Remove /, "Refit "],
  [/^Take (?:out|off) /, "Refit "],
  [/^Disconnect /, "Reconnect "],
  [/^Unclip /, "Clip in "],
  [/^Unscrew /, "Screw back "],
  [/^Undo /, "Tighten "],
  [/^Open /, "Close "],
  [/^Lower /, "Raise "],
];

/** The refitting of a step by its title; what stands after a colon says how it came off, and is left out. */
function reversedTitle(title: string): string {
  const [what = title] = title.split(": ");
  const known = reversals.find(([start]) => start.test(what));
  return known ? what.replace(known[0], known[1]) : `Refit what came off: ${title}`;
}

/** One rule for refitting a step. */
export function backRuleText(rule: BackRule): string {
  switch (rule.rule) {
    case "clear-swarf":
      return "remove the swarf and clean the edges before you refit anything";
    case "new":
      return `fit new: ${rule.what}`;
    case "keyed":
      return `line up the key first: ${rule.where}`;
    case "hang-up":
      return `${rule.what} goes back on its bracket; pinch no wires`;
    case "all-by-hand":
      return `begin with the easiest screw, start all ${rule.screws} by hand, then tighten them evenly`;
    case "start-by-hand":
      return "start the screw by hand";
    case "into-plastic":
      return "screws into plastic: seat them, then tighten an eighth to a quarter turn; stripped plastic does not hold";
    case "slide-home":
      return `${fastenerText(rule.fastener)}: slide it home, then tighten`;
    case "other-screws": {
      const count = screwsBack(rule.fastener);
      return `${count} new ${sortName(sortBack(rule.fastener), count)} instead of what came out`;
    }
    case "stays-out":
      return `${rule.screws} ${rule.screws === 1 ? "screw stays" : "screws stay"} out, because the ear was broken off`;
    case "plug-clicks":
      return `${rule.plug} must click, and hold when you tug it`;
    case "tubes-on":
      return rule.tubes === 1
        ? "refit the tube without a kink"
        : `refit all ${rule.tubes} tubes without a kink`;
    case "negative-last":
      return "do this last; do not let a spanner bridge the positive and the body";
    case "positive-first":
      return "connect the positive first, then fit its cover";
    case "wires-as-they-were":
      return "untie it and route its wires as before";
    case "clear-of-wheel":
      return `keep hands and tools clear of the wheel${rule.pluggedIn.length > 0 ? `, with ${listed(rule.pluggedIn)} plugged in` : ""}`;
    case "negative-on-for-test":
      return "connect every plug first, airbag plugs too; reconnect the battery negative for the test, then disconnect it again";
  }
}

/** A finding about an access plan. */
export function planDoubtText({ code, about }: PlanDoubt): string {
  switch (code) {
    case "step-not-needed":
      return `${about}: no other step and no part needs this step, so it is never used`;
    case "no-way":
      return `${about}: no steps lead to it`;
    case "negative-stays-on":
      return `${about}: needs the battery negative disconnected, but no step does that`;
    case "part-not-reached":
      return `${about}: the circuit has this part, but the plan does not reach it`;
    case "no-such-part":
      return `${about}: the circuit has no such part`;
  }
}

const counted = (count: number): string => `${count} ${count === 1 ? "screw" : "screws"}`;
const screwsOutOf = (fasteners: readonly Fastener[]): number =>
  fasteners.reduce((sum, { count, loosenOnly }) => sum + (loosenOnly ? 0 : count), 0);

/** The tray's warning about a step whose screws do not add up. */
export function trayCallText({ step, kind, screws }: TrayCall): string {
  const { title, fasteners = [] } = step;
  switch (kind) {
    case "left-over":
      return `${title}: ${counted(screws)} left over; find the empty hole before you close it`;
    case "short":
      return `${title}: ${counted(screws)} more went in than came out; another place will be missing one`;
    case "not-as-planned": {
      const sorts = fasteners.map(fastenerText).join(", ");
      return `${title}: ${counted(screws)} came out, the plan says ${screwsOutOf(fasteners)}${sorts ? ` (${sorts})` : ""}`;
    }
  }
}

import { type Fastener, fastenerText } from "@core/access/fastener";
import type { PlanDoubt } from "@core/access/planFinding";
import type { BackRule, BackWork } from "@core/access/refitting";
import type { TrayCall } from "@core/access/tray";
import { listed } from "@core/units/wording";

/** What a step of the way back is called. */
export function backTitle(work: BackWork): string {
  if (work.does === "test")
    return `Test ${work.beforePanels ? "before the panels go on" : "now"}: key on, off, every speed up and down, and off stays off`;
  const { step } = work;
  if (step.back) return step.back;
  return step.kind === "battery-off" ? "Reconnect the battery negative" : `Undo: ${step.title}`;
}

/** How a step goes back, one rule. */
export function backRuleText(rule: BackRule): string {
  switch (rule.rule) {
    case "clear-swarf":
      return "clear the swarf and clean the edges before anything goes in";
    case "new":
      return `fit new: ${rule.what}`;
    case "keyed":
      return `keyed position first: ${rule.where}`;
    case "hang-up":
      return `${rule.what} goes back on its bracket, with nothing pinched`;
    case "all-by-hand":
      return `easiest screw first; start all ${rule.screws} by hand before you tighten any; tighten in even passes`;
    case "start-by-hand":
      return "start the screw by hand";
    case "into-plastic":
      return "into plastic: seated plus an eighth to a quarter turn; stripped plastic holds nothing";
    case "slide-home":
      return `${fastenerText(rule.fastener)}: slide it home, then tighten`;
    case "stays-out":
      return `${rule.screws} ${rule.screws === 1 ? "screw stays" : "screws stay"} out for good: the ear is gone`;
    case "plug-clicks":
      return `${rule.plug} clicks and holds when you tug it`;
    case "tubes-on":
      return rule.tubes === 1
        ? "put the tube on without a kink"
        : `put all ${rule.tubes} tubes on without a kink`;
    case "negative-last":
      return "this comes last of all; let no spanner bridge the positive and the body";
    case "positive-first":
      return "connect the positive first, then fit its cover";
    case "wires-as-they-were":
      return "untie it and lay its wires where they were";
    case "clear-of-wheel":
      return `keep hands and tools clear of the wheel${rule.pluggedIn.length > 0 ? `, with ${listed(rule.pluggedIn)} plugged in` : ""}`;
    case "negative-on-for-test":
      return "connect every plug first, airbag plugs too; reconnect the battery negative for the test, then disconnect it again";
  }
}

/** What troubles whoever follows a plan. */
export function planDoubtText({ code, about }: PlanDoubt): string {
  switch (code) {
    case "step-not-needed":
      return `${about}: no other step and no part needs it, so no way in uses it`;
    case "no-way":
      return `${about}: no way leads to it`;
    case "negative-stays-on":
      return `${about}: needs the battery negative disconnected, and no step does that`;
    case "part-not-reached":
      return `${about}: the circuit has this part, but the plan does not reach it`;
    case "no-such-part":
      return `${about}: the circuit has no such part`;
  }
}

const counted = (count: number): string => `${count} ${count === 1 ? "screw" : "screws"}`;
const screwsOutOf = (fasteners: readonly Fastener[]): number =>
  fasteners.reduce((sum, { count, loosenOnly }) => sum + (loosenOnly ? 0 : count), 0);

/** What the tray says of a step whose screws do not add up. */
export function trayCallText({ step, kind, screws }: TrayCall): string {
  const { title, fasteners = [] } = step;
  switch (kind) {
    case "left-over":
      return `${title}: ${counted(screws)} left over; look for the empty hole before you close it`;
    case "short":
      return `${title}: ${counted(screws)} more went in than came out; another place will be short`;
    case "not-as-planned": {
      const sorts = fasteners.map(fastenerText).join(", ");
      return `${title}: ${counted(screws)} came out, the plan says ${screwsOutOf(fasteners)}${sorts ? ` (${sorts})` : ""}`;
    }
  }
}

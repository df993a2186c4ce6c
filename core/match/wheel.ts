import type { AdaptationWork } from "../access/adaptation";
import { adaptable, harmless, type PartDifference, type Wheel, wrong } from "./difference";
import type { PartDescription } from "./partDescription";

/** Millimetres a wheel may differ by and still run freely in its housing. */
const freeMm = 1;
/** Millimetres of bore over shaft that a press fit allows. */
const pressMm = 0.05;

/** Differences of the wheel and of the motor's direction of rotation (common practice, no source). */
export function wheelDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  return [...turning(old, fresh), ...wheel(old, fresh), ...clip(old, fresh)];
}

/** Whether the old wheel goes onto the new motor without anybody having measured that it fits. */
export const isWheelFitUnknown = (
  { wheel: old }: PartDescription,
  { wheel: fresh }: PartDescription,
): boolean =>
  fresh?.included === false &&
  (old?.shaft === undefined ||
    fresh.shaft === undefined ||
    old.boreMm === undefined ||
    fresh.boreMm === undefined);

function turning({ turns: old }: PartDescription, { turns: fresh }: PartDescription): PartDifference[] {
  return old && fresh && old !== fresh ? [wrong("direction", { code: "turns-backwards", old, fresh })] : [];
}

function clip({ clip: old, wheel }: PartDescription, { clip: fresh }: PartDescription): PartDifference[] {
  // A wheel that is carried over brings its clip along.
  return old === true && fresh === false && wheel?.included !== false
    ? [adaptable("clip", { code: "clip-missing" }, "carry-clip")]
    : [];
}

function wheel({ wheel: old }: PartDescription, { wheel: fresh }: PartDescription): PartDifference[] {
  if (!old || !fresh) return [];
  if (!fresh.included) return old.included ? carriedOver(old, fresh) : [];
  const [oldSize, freshSize] = [sizeOf(old), sizeOf(fresh)];
  if (!oldSize || !freshSize) return [];
  const wheels = { old: oldSize, fresh: freshSize };
  const bigger = Math.max(freshSize.outerMm - oldSize.outerMm, freshSize.heightMm - oldSize.heightMm);
  if (bigger > freeMm) return [wrong("wheel", { code: "wheel-too-big", ...wheels })];
  const smaller = Math.max(oldSize.outerMm - freshSize.outerMm, oldSize.heightMm - freshSize.heightMm);
  if (smaller > 8 * freeMm) return [wrong("wheel", { code: "wheel-too-small", ...wheels })];
  return bigger === 0 && smaller === 0 ? [] : [harmless("wheel", { code: "wheel-runs-free", ...wheels })];
}

const sizeOf = ({ outerMm, heightMm }: Wheel) =>
  outerMm === undefined || heightMm === undefined ? null : { outerMm, heightMm };

/** Whether the old wheel fits the new shaft, as far as both were measured, and how it is moved over. */
function carriedOver(old: Wheel, fresh: Wheel): PartDifference[] {
  if (old.shaft && fresh.shaft && old.shaft !== fresh.shaft)
    return [wrong("shaft", { code: "other-shaft", old: old.shaft, fresh: fresh.shaft })];
  if (old.hold && fresh.hold && old.hold !== fresh.hold)
    return [wrong("shaft", { code: "other-hold", old: old.hold, fresh: fresh.hold })];
  if (old.boreMm !== undefined && fresh.boreMm !== undefined) {
    const play = old.boreMm - fresh.boreMm;
    if (Math.abs(play) > pressMm)
      return [
        wrong("bore", {
          code: play > 0 ? "bore-loose" : "bore-tight",
          oldMm: old.boreMm,
          freshMm: fresh.boreMm,
        }),
      ];
  }
  return [adaptable("wheel", { code: "wheel-missing" }, moveOf(old))];
}

/** How a wheel comes off one shaft and goes onto another: pressed, held by a clip or nut, or only slid onto a flat. */
function moveOf({ hold, shaft }: Wheel): AdaptationWork {
  if (hold === "pressed") return "press-wheel-over";
  return hold === undefined && shaft === "flat" ? "slide-wheel-over" : "carry-wheel-over";
}

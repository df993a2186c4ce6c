import { adaptable, harmless, type PartDifference, wrong } from "./difference";
import type { PartDescription } from "./partDescription";

/** Millimetres a wheel may differ by and still run freely in its housing. */
const freeMm = 1;
/** Millimetres of bore over shaft that a press fit allows. */
const pressMm = 0.05;

/** Differences of the wheel and of the motor's direction of rotation (common practice, no source). */
export function wheelDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  return [...turning(old, fresh), ...wheel(old, fresh)];
}

function turning({ turns: old }: PartDescription, { turns: fresh }: PartDescription): PartDifference[] {
  return old && fresh && old !== fresh ? [wrong("direction", { code: "turns-backwards", old, fresh })] : [];
}

function wheel({ wheel: old }: PartDescription, { wheel: fresh }: PartDescription): PartDifference[] {
  if (!old || !fresh) return [];
  if (!fresh.included) return carriedOver(old, fresh);
  const wheels = { old, fresh };
  const bigger = Math.max(fresh.outerMm - old.outerMm, fresh.heightMm - old.heightMm);
  if (bigger > freeMm) return [wrong("wheel", { code: "wheel-too-big", ...wheels })];
  const smaller = Math.max(old.outerMm - fresh.outerMm, old.heightMm - fresh.heightMm);
  if (smaller > 8 * freeMm) return [wrong("wheel", { code: "wheel-too-small", ...wheels })];
  return bigger === 0 && smaller === 0 ? [] : [harmless("wheel", { code: "wheel-runs-free", ...wheels })];
}

/** Whether the old wheel fits the new shaft. */
function carriedOver(
  old: NonNullable<PartDescription["wheel"]>,
  fresh: NonNullable<PartDescription["wheel"]>,
): PartDifference[] {
  if (old.shaft !== fresh.shaft)
    return [wrong("shaft", { code: "other-shaft", old: old.shaft, fresh: fresh.shaft })];
  const play = old.boreMm - fresh.boreMm;
  if (Math.abs(play) > pressMm)
    return [
      wrong("bore", {
        code: play > 0 ? "bore-loose" : "bore-tight",
        oldMm: old.boreMm,
        freshMm: fresh.boreMm,
      }),
    ];
  return [
    old.hold === "pressed"
      ? adaptable("wheel", { code: "press-wheel-over" }, 10)
      : adaptable("wheel", { code: "carry-wheel-over" }, 4),
  ];
}

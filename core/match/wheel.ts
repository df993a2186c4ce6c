import { adaptable, harmless, type PartDifference, wrong } from "./difference";
import type { PartDescription } from "./partDescription";

/** Millimetres a wheel may differ by and still run free in its housing. */
const freeMm = 1;
/** Bore over shaft that a press fit stands. */
const pressMm = 0.05;

/** Differences of the wheel and of the way the motor turns it (common practice, no source). */
export function wheelDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  return [...turning(old, fresh), ...wheel(old, fresh)];
}

function turning({ turns: old }: PartDescription, { turns: fresh }: PartDescription): PartDifference[] {
  if (!old || !fresh || old === fresh) return [];
  return [
    wrong(
      "direction",
      old,
      fresh,
      "a wheel turned backwards blows the right way and weakly: the air comes off its blades the wrong way round",
    ),
  ];
}

const size = ({ outerMm, heightMm }: NonNullable<PartDescription["wheel"]>): string =>
  `${outerMm} × ${heightMm} mm`;

function wheel({ wheel: old }: PartDescription, { wheel: fresh }: PartDescription): PartDifference[] {
  if (!old || !fresh) return [];
  if (!fresh.included) return carriedOver(old, fresh);
  const bigger = Math.max(fresh.outerMm - old.outerMm, fresh.heightMm - old.heightMm);
  if (bigger > freeMm) return [wrong("wheel", size(old), size(fresh), "it touches its housing")];
  const smaller = Math.max(old.outerMm - fresh.outerMm, old.heightMm - fresh.heightMm);
  if (smaller > 8 * freeMm)
    return [wrong("wheel", size(old), size(fresh), "so much smaller that it blows noticeably less")];
  return bigger === 0 && smaller === 0
    ? []
    : [harmless("wheel", size(old), size(fresh), "runs free in the housing, and its own motor turns it")];
}

/** The old wheel goes onto the new shaft, or does not. */
function carriedOver(
  old: NonNullable<PartDescription["wheel"]>,
  fresh: NonNullable<PartDescription["wheel"]>,
): PartDifference[] {
  if (old.shaft !== fresh.shaft)
    return [
      wrong(
        "shaft",
        old.shaft,
        fresh.shaft,
        "the old wheel must be carried over, and does not go onto this shaft",
      ),
    ];
  const play = old.boreMm - fresh.boreMm;
  if (Math.abs(play) > pressMm)
    return [
      wrong(
        "bore",
        `${old.boreMm} mm`,
        `shaft for ${fresh.boreMm} mm`,
        play > 0 ? "the old wheel would slip on it" : "the old wheel does not go on",
      ),
    ];
  const [work, minutes]: readonly [string, number] =
    old.hold === "pressed"
      ? ["Press the old wheel off and on, flat to flat", 10]
      : ["Carry the old wheel over with its clip or nut", 4];
  return [
    adaptable(
      "wheel",
      "with the wheel",
      "without",
      "the old wheel is carried over; balance and height as they were",
      work,
      minutes,
    ),
  ];
}

import type { DifferenceFinding, PartDifference } from "@core/match/difference";
import { ampsText } from "@core/units/wording";
import { adaptationTitle } from "./adaptationWords";
import { bodyTold } from "./bodyDifferenceWords";
import { plugTold } from "./plugDifferenceWords";
import type { DifferenceOf, Told } from "./toldDifference";
import { wheelTold } from "./wheelDifferenceWords";

/** A difference in words: the old part's value, the new one's, the consequence and the work needed. */
interface DifferenceWords {
  readonly feature: string;
  readonly judgement: PartDifference["judgement"];
  readonly old: string;
  readonly fresh: string;
  readonly because: string;
  readonly work: { readonly title: string; readonly minutes: number } | null;
}

/** Puts one difference into words. */
export function differenceWords({
  feature,
  judgement,
  finding,
  adaptation,
}: PartDifference): DifferenceWords {
  const [old, fresh, because] = told(finding);
  return {
    feature,
    judgement,
    old,
    fresh,
    because,
    work: adaptation && { title: adaptationTitle(adaptation), minutes: adaptation.minutes },
  };
}

function told(finding: DifferenceFinding): Told {
  switch (finding.code) {
    case "other-kind":
      return [finding.old, finding.fresh, "this is a different kind of part"];
    case "other-climate":
      return [
        finding.old,
        finding.fresh,
        "it is made for the other kind of climate control; the plug may fit, but the control does not match",
      ];
    case "pins-by-splice":
    case "pins-by-lead":
    case "pins-do-not-fit":
    case "tab-by-splice":
    case "tab-by-lead":
    case "tab-turned":
    case "plug-elsewhere":
    case "tail-longer":
    case "tail-shorter":
    case "lead-missing":
    case "lead-not-needed":
      return plugTold(finding);
    case "holes-differ":
    case "holes-mirrored":
    case "holes-within-play":
    case "holes-to-file":
    case "holes-too-far":
      return holesTold(finding);
    case "other-terminals":
    case "speed-changes":
    case "coil-hotter":
      return [
        finding.oldOhms ? ohmsList(finding.oldOhms) : "the circuit's",
        ohmsList(finding.freshOhms),
        ohmsReason(finding),
      ];
    case "fuse-blows":
    case "fuse-overloaded":
    case "draw-fine":
      return [plate(finding.old), plate(finding.fresh), drawReason(finding)];
    case "motor-speed":
      return [
        "",
        `${percentOf(finding.airflow)} of the old speed`,
        `on speed ${finding.setting} the motor turns at ${percentOf(finding.airflow)} of the old motor's speed`,
      ];
    case "turns-backwards":
    case "wheel-too-big":
    case "wheel-too-small":
    case "wheel-runs-free":
    case "other-shaft":
    case "other-hold":
    case "bore-loose":
    case "bore-tight":
    case "wheel-missing":
    case "clip-missing":
      return wheelTold(finding);
    default:
      return bodyTold(finding);
  }
}

const percentOf = (share: number): string => `${(share * 100).toFixed(0)} %`;
const ohmsList = (ohms: readonly number[]): string => ohms.map((own) => `${own} Ω`).join(", ");
const plate = ({ ratedAmps, ratedVolts }: { ratedAmps: number; ratedVolts: number }): string =>
  `${ratedAmps} A at ${ratedVolts} V`;

function holesTold(
  finding: DifferenceOf<
    "holes-differ" | "holes-mirrored" | "holes-within-play" | "holes-to-file" | "holes-too-far"
  >,
): Told {
  const old = `${finding.oldHoles} holes`;
  switch (finding.code) {
    case "holes-differ":
      return [old, `${finding.freshHoles} holes`, "the hole patterns do not match"];
    case "holes-mirrored":
      return [
        old,
        `${finding.freshHoles} holes, mirrored`,
        "it fits only upside down; it is made for the other side of the car",
      ];
    case "holes-within-play":
      return [old, off(finding), `within the ${finding.playMm} mm of play`];
    case "holes-to-file":
      return [old, off(finding), `${finding.playMm} mm of play is too little`];
    case "holes-too-far":
      return [old, off(finding), "too far off to file"];
  }
}

const off = ({ offMm }: { offMm: number }): string => `${offMm.toFixed(1)} mm off`;

function ohmsReason(finding: DifferenceOf<"other-terminals" | "speed-changes" | "coil-hotter">): string {
  switch (finding.code) {
    case "other-terminals":
      return "its coils lie between other terminals than this circuit's";
    case "speed-changes":
      return `speed ${finding.setting} blows ${percentOf(Math.abs(finding.airflowChange))} ${finding.airflowChange > 0 ? "more" : "less"}, calculated in this circuit`;
    case "coil-hotter":
      return `coil ${finding.coil} would make ${finding.watts.toFixed(0)} W of heat instead of ${finding.wasWatts.toFixed(0)} W`;
  }
}

function drawReason(finding: DifferenceOf<"fuse-blows" | "fuse-overloaded" | "draw-fine">): string {
  switch (finding.code) {
    case "fuse-blows":
      return `${ampsText(finding.amps)} would flow through ${finding.fuse}, a ${finding.ratedAmps} A fuse: it blows`;
    case "fuse-overloaded":
      return `${ampsText(finding.amps)} would flow through ${finding.fuse}, a ${finding.ratedAmps} A fuse: over 80 % of its rating, so it will not last`;
    case "draw-fine":
      return `it draws ${ampsText(finding.amps)} on ${finding.setting} where the old one drew ${ampsText(finding.wasAmps)}; every fuse can carry it`;
  }
}

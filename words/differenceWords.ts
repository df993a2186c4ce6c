import type { DifferenceFinding, PartDifference } from "@core/match/difference";
import type { Mount } from "@core/match/partDescription";
import { ampsText } from "@core/units/wording";
import { adaptationTitle } from "./adaptationWords";

/** A difference in words: the old part's value, the new one's, the consequence and the work needed. */
interface DifferenceWords {
  readonly feature: string;
  readonly judgement: PartDifference["judgement"];
  readonly old: string;
  readonly fresh: string;
  readonly because: string;
  readonly work: { readonly title: string; readonly minutes: number } | null;
}

type Told = readonly [old: string, fresh: string, because: string];

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

const holdWords = { pressed: "wheel pressed on", clip: "wheel on a clip", nut: "wheel on a nut" } as const;

const mountWords: Readonly<Record<Mount, string>> = {
  screws: "held by screws",
  "twist-lock": "held by a twist",
  moulded: "moulded in",
  ring: "with a fixing ring",
};

type Finding<Code extends DifferenceFinding["code"]> = Extract<DifferenceFinding, { code: Code }>;

const percentOf = (share: number): string => `${(share * 100).toFixed(0)} %`;
const ohmsList = (ohms: readonly number[]): string => ohms.map((own) => `${own} Ω`).join(", ");
const plate = ({ ratedAmps, ratedVolts }: { ratedAmps: number; ratedVolts: number }): string =>
  `${ratedAmps} A at ${ratedVolts} V`;

function plugTold(
  finding: Finding<
    | "pins-by-splice"
    | "pins-by-lead"
    | "pins-do-not-fit"
    | "tab-by-splice"
    | "tab-by-lead"
    | "tab-turned"
    | "plug-elsewhere"
    | "tail-longer"
    | "tail-shorter"
    | "lead-missing"
    | "lead-not-needed"
  >,
): Told {
  switch (finding.code) {
    case "pins-by-splice":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins, with leads`,
        "it comes with its own plug, which has to be spliced in",
      ];
    case "pins-by-lead":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins, with a loose lead`,
        "the loose lead joins it to the car's plug",
      ];
    case "pins-do-not-fit":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins`,
        "the car's plug does not fit this part",
      ];
    case "tab-by-splice":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}, with leads`,
        "it comes with its own plug, which has to be spliced in",
      ];
    case "tab-by-lead":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}, with a loose lead`,
        "the loose lead joins it to the car's plug",
      ];
    case "tab-turned":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}`,
        "the plug would go on upside down, if at all, and connect to the wrong pins",
      ];
    case "plug-elsewhere":
      return [seat(finding.old), seat(finding.fresh), "the same plug in another place connects just as well"];
    case "tail-longer":
      return [
        `${finding.oldMm} mm of wire`,
        `${finding.freshMm} mm`,
        "tie the rest up, away from the wheel and anything sharp",
      ];
    case "tail-shorter":
      return [
        `${finding.oldMm} mm of wire`,
        `${finding.freshMm} mm`,
        "see that it reaches the car's plug without pulling",
      ];
    case "lead-missing":
      return ["with a loose lead", "without", "the old lead joins it to the car's plug"];
    case "lead-not-needed":
      return [
        "without",
        "with a loose lead",
        "the car's plug fits it directly, so the lead stays in the box",
      ];
  }
}

const seat = (place: string): string =>
  place === "tail" ? "plug on a tail of wires" : `plug at the ${place}`;

function holesTold(
  finding: Finding<
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

function ohmsReason(finding: Finding<"other-terminals" | "speed-changes" | "coil-hotter">): string {
  switch (finding.code) {
    case "other-terminals":
      return "its coils lie between other terminals than this circuit's";
    case "speed-changes":
      return `speed ${finding.setting} blows ${percentOf(Math.abs(finding.airflowChange))} ${finding.airflowChange > 0 ? "more" : "less"}, calculated in this circuit`;
    case "coil-hotter":
      return `coil ${finding.coil} would make ${finding.watts.toFixed(0)} W of heat instead of ${finding.wasWatts.toFixed(0)} W`;
  }
}

function drawReason(finding: Finding<"fuse-blows" | "fuse-overloaded" | "draw-fine">): string {
  switch (finding.code) {
    case "fuse-blows":
      return `${ampsText(finding.amps)} would flow through ${finding.fuse}, a ${finding.ratedAmps} A fuse: it blows`;
    case "fuse-overloaded":
      return `${ampsText(finding.amps)} would flow through ${finding.fuse}, a ${finding.ratedAmps} A fuse: over 80 % of its rating, so it will not last`;
    case "draw-fine":
      return `it draws ${ampsText(finding.amps)} on ${finding.setting} where the old one drew ${ampsText(finding.wasAmps)}; every fuse can carry it`;
  }
}

const size = ({ outerMm, heightMm }: { outerMm: number; heightMm: number }): string =>
  `${outerMm} × ${heightMm} mm`;

function wheelTold(
  finding: Finding<
    | "turns-backwards"
    | "wheel-too-big"
    | "wheel-too-small"
    | "wheel-runs-free"
    | "other-shaft"
    | "other-hold"
    | "bore-loose"
    | "bore-tight"
    | "wheel-missing"
    | "clip-missing"
  >,
): Told {
  switch (finding.code) {
    case "turns-backwards":
      return [
        finding.old,
        finding.fresh,
        "a wheel that turns backwards still blows out of the vents, but weakly",
      ];
    case "wheel-too-big":
      return [size(finding.old), size(finding.fresh), "the wheel would touch its housing"];
    case "wheel-too-small":
      return [
        size(finding.old),
        size(finding.fresh),
        "the wheel is so much smaller that it blows noticeably less",
      ];
    case "wheel-runs-free":
      return [size(finding.old), size(finding.fresh), "the wheel turns freely in the housing"];
    case "other-shaft":
      return [
        `shaft ${finding.old}`,
        `shaft ${finding.fresh}`,
        "it comes without a wheel, and the old wheel does not fit this shaft",
      ];
    case "other-hold":
      return [
        holdWords[finding.old],
        holdWords[finding.fresh],
        "it comes without a wheel, and nothing would hold the old one on this shaft",
      ];
    case "bore-loose":
    case "bore-tight":
      return [
        `${finding.oldMm} mm`,
        `shaft for ${finding.freshMm} mm`,
        finding.code === "bore-loose"
          ? "the old wheel would slip on this shaft"
          : "the old wheel does not fit this shaft",
      ];
    case "wheel-missing":
      return ["with the wheel", "without", "the old wheel is used again"];
    case "clip-missing":
      return ["with its clip", "without", "the old clip is used again"];
  }
}

function bodyTold(
  finding: Finding<
    | "gasket-missing"
    | "gasket-added"
    | "more-screws"
    | "fewer-screws"
    | "vent-missing"
    | "vent-added"
    | "drain-missing"
    | "drain-added"
    | "ring-kit"
    | "other-mount"
    | "cut-out-added"
    | "cut-out-missing"
    | "key-gone"
    | "key-in-the-way"
  >,
): Told {
  switch (finding.code) {
    case "gasket-missing":
      return ["with a gasket", "without", "the old gasket or a strip of foam seals it"];
    case "gasket-added":
      return ["without", "with a gasket", "it seals better"];
    case "more-screws":
      return [`${finding.old} screws`, `${finding.fresh} screws`, "the housing has no hole for every screw"];
    case "fewer-screws":
      return [
        `${finding.old} screws`,
        `${finding.fresh} screws`,
        "one hole stays empty; the part still holds",
      ];
    case "vent-missing":
      return [
        "with a vent tube",
        "without",
        "the old tube is used again; without cooling air the motor burns out, so send it back if it has no hole for the tube",
      ];
    case "vent-added":
      return ["without", "with a vent", "an open vent whistles"];
    case "drain-missing":
      return ["with a drain", "without", "water stays in the housing and floods the motor"];
    case "drain-added":
      return ["without", "with a nose", "the housing has no hole for the nose"];
    case "ring-kit":
      return [
        mountWords[finding.old],
        mountWords[finding.fresh],
        "a known conversion: the old motor is cut out along its seam, and the ring comes with its own screws",
      ];
    case "other-mount":
      return [mountWords[finding.old], mountWords[finding.fresh], "the housing cannot hold it"];
    case "cut-out-added":
    case "cut-out-missing":
    case "key-gone":
    case "key-in-the-way":
      return locatingTold(finding);
  }
}

function locatingTold(
  finding: Finding<"cut-out-added" | "cut-out-missing" | "key-gone" | "key-in-the-way">,
): Told {
  const named = (what: string, side: string): string =>
    side === "none" ? `no ${what}` : `${what} at the ${side}`;
  switch (finding.code) {
    case "cut-out-added":
      return [
        named("cut-out", finding.old),
        named("cut-out", finding.fresh),
        "a missing corner is in nobody's way",
      ];
    case "cut-out-missing":
      return [
        named("cut-out", finding.old),
        named("cut-out", finding.fresh),
        "the housing needs room where the old part is cut out",
      ];
    case "key-gone":
      return [
        named("key", finding.old),
        named("key", finding.fresh),
        "nothing sets its position now; mark how the old one sits",
      ];
    case "key-in-the-way":
      return [
        named("key", finding.old),
        named("key", finding.fresh),
        "the housing has no slot for the key there; mark how the old part sits",
      ];
  }
}

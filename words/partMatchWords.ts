import type { DifferenceFinding, PartDifference } from "@core/match/difference";
import type { PartFeature, PartMatch } from "@core/match/partMatch";
import type { Crimp, LeadJoint, LeadMap, LeadWarning, SpliceRefusal } from "@core/match/spliceLeads";
import { ampsText } from "@core/units/wording";

/** A difference in words: the old part's value, the new one's, the consequence and the work needed. */
interface DifferenceWords {
  readonly feature: string;
  readonly judgement: PartDifference["judgement"];
  readonly old: string;
  readonly fresh: string;
  readonly because: string;
  readonly work: { readonly title: string; readonly minutes: number } | null;
}

type Told = readonly [old: string, fresh: string, because: string, work?: string];

/** Puts one difference into words. */
function differenceWords({ feature, judgement, finding, workMinutes }: PartDifference): DifferenceWords {
  const [old, fresh, because, work] = told(finding);
  return {
    feature,
    judgement,
    old,
    fresh,
    because,
    work: work ? { title: work, minutes: workMinutes } : null,
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
    case "pins-do-not-fit":
    case "tab-on-new-plug":
    case "tab-turned":
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
    case "bore-loose":
    case "bore-tight":
    case "press-wheel-over":
    case "carry-wheel-over":
      return wheelTold(finding);
    default:
      return bodyTold(finding);
  }
}

type Finding<Code extends DifferenceFinding["code"]> = Extract<DifferenceFinding, { code: Code }>;

const percentOf = (share: number): string => `${(share * 100).toFixed(0)} %`;
const ohmsList = (ohms: readonly number[]): string => ohms.map((own) => `${own} Ω`).join(", ");
const plate = ({ ratedAmps, ratedVolts }: { ratedAmps: number; ratedVolts: number }): string =>
  `${ratedAmps} A at ${ratedVolts} V`;

function plugTold(
  finding: Finding<"pins-by-splice" | "pins-do-not-fit" | "tab-on-new-plug" | "tab-turned">,
): Told {
  switch (finding.code) {
    case "pins-by-splice":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins, with leads`,
        "it comes with its own plug, which has to be spliced in",
        "Splice the new plug in, lead by lead",
      ];
    case "pins-do-not-fit":
      return [
        `${finding.oldPins} pins`,
        `${finding.freshPins} pins`,
        "the car's plug does not fit this part",
      ];
    case "tab-on-new-plug":
      return [finding.old, finding.fresh, "the new plug comes with the part"];
    case "tab-turned":
      return [
        `tab ${finding.old}`,
        `tab ${finding.fresh}`,
        "the plug would go on upside down, if at all, and connect to the wrong pins",
      ];
  }
}

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
      return [
        old,
        off(finding),
        `${finding.playMm} mm of play is too little`,
        "File the holes out with a round file",
      ];
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
    | "bore-loose"
    | "bore-tight"
    | "press-wheel-over"
    | "carry-wheel-over"
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
      return [finding.old, finding.fresh, "the old wheel must be reused, and it does not fit this shaft"];
    case "bore-loose":
    case "bore-tight":
      return [
        `${finding.oldMm} mm`,
        `shaft for ${finding.freshMm} mm`,
        finding.code === "bore-loose"
          ? "the old wheel would slip on this shaft"
          : "the old wheel does not fit this shaft",
      ];
    case "press-wheel-over":
    case "carry-wheel-over":
      return [
        "with the wheel",
        "without",
        "the old wheel is reused; keep its height and balance",
        finding.code === "press-wheel-over"
          ? "Press the old wheel off and onto the new shaft, flat on flat"
          : "Move the old wheel over with its clip or nut",
      ];
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
    | "corner-gone"
    | "corner-in-the-way"
  >,
): Told {
  switch (finding.code) {
    case "gasket-missing":
      return [
        "with a gasket",
        "without",
        "the old gasket or a strip of foam seals it",
        "Reuse the old gasket",
      ];
    case "gasket-added":
      return ["without", "with a gasket", "it seals better"];
    case "more-screws":
      return [
        `${finding.old} screws`,
        `${finding.fresh} screws`,
        "the housing has no hole for every screw",
        "Leave one out, or drill",
      ];
    case "fewer-screws":
      return [
        `${finding.old} screws`,
        `${finding.fresh} screws`,
        "one hole stays empty; the part still holds",
      ];
    case "vent-missing":
      return ["with a vent", "without", "the motor gets no cooling air, and the tube blows into the car"];
    case "vent-added":
      return ["without", "with a vent", "an open vent whistles", "Close the vent, or run a tube to it"];
    case "drain-missing":
      return ["with a drain", "without", "water stays in the housing and floods the motor"];
    case "drain-added":
      return [
        "without",
        "with a nose",
        "the housing has no hole for the nose",
        "Cut the nose off flush and seal it",
      ];
    case "corner-gone":
    case "corner-in-the-way":
      return cornerTold(finding);
  }
}

function cornerTold(finding: Finding<"corner-gone" | "corner-in-the-way">): Told {
  switch (finding.code) {
    case "corner-gone":
      return [
        `corner ${finding.old}`,
        "none",
        "nothing sets its position now; check which way round it goes",
      ];
    case "corner-in-the-way":
      return [
        finding.old === "none" ? "none" : `corner ${finding.old}`,
        `corner ${finding.fresh}`,
        "the corner is in the way",
        "File the corner off",
      ];
  }
}

const featureNames: Readonly<Record<PartFeature, string>> = {
  plug: "plug and its tab",
  holes: "hole pattern",
  screws: "screws",
  notch: "notch or key",
  ventTube: "vent tube",
  drainNose: "drain nose",
  gasket: "gasket",
  climate: "manual or automatic climate",
};

/** A feature that neither part's description states. */
const featureText = (feature: PartFeature): string => featureNames[feature];

/** Why a plug with leads cannot be spliced in. */
function spliceRefusalText(refusal: SpliceRefusal): string {
  switch (refusal.code) {
    case "no-such-plug":
      return `${refusal.plug}: the circuit has no such plug`;
    case "no-lead":
      return `pin ${refusal.pin} of ${refusal.plug} has a wire (${refusal.colour}), but the new plug has no lead for it`;
    case "no-wire":
      return `pin ${refusal.pin}, ${refusal.colour}: the old plug has no wire there`;
    case "no-pin":
      return `pin ${refusal.pin}, ${refusal.colour}: the old plug has no such pin`;
    case "wrong-circuit":
      return `${refusal.colour} of the new plug is pin ${refusal.pin}, to ${refusal.terminal}; the old ${refusal.colour} is pin ${refusal.oldPin}, to ${refusal.oldTerminal}: joined colour to colour, it would feed the wrong circuit`;
    case "too-thin":
      return `pin ${refusal.pin}, ${refusal.colour}: ${refusal.mm2} mm² carries ${refusal.standsAmps.toFixed(0)} A at most, and ${ampsText(refusal.amps)} flow there`;
  }
}

/** How two wires are joined. */
const crimpText = (crimp: Crimp): string =>
  crimp === "bare"
    ? "bare barrel for both wires, crimped, with adhesive heat-shrink"
    : `${crimp} butt crimp, sealed`;

/** What to watch at one joint of a splice. */
function leadWarningText(warning: LeadWarning, { lead, wire }: LeadJoint): string {
  switch (warning) {
    case "joined-by-pin":
      return `${lead.colour} is joined to ${wire.colour}; go by the pin, not by the colour, and mark the joint`;
    case "thinner":
      return `thinner than the old ${wire.mm2} mm²`;
    case "shared-pin":
      return "two old wires share this pin: put both into the joint";
  }
}

/** A splice in words, with its refusals, crimps and warnings. */
export const leadMapWords = ({ joints, refusals }: LeadMap) => ({
  joints: joints.map((joint) => ({
    ...joint,
    crimp: crimpText(joint.crimp),
    warnings: joint.warnings.map((warning) => leadWarningText(warning, joint)),
  })),
  refusals: refusals.map(spliceRefusalText),
});

/** A comparison of two parts with its differences in words, each with whether a person overrode it. */
export const partMatchWords = ({ differences, untold, ...match }: PartMatch) => ({
  ...match,
  differences: differences.map((own) => ({ ...differenceWords(own), overridden: own.overridden })),
  untold: untold.map(featureText),
});

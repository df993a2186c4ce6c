import type { DifferenceOf, Told } from "./toldDifference";

const holdWords = { pressed: "wheel pressed on", clip: "wheel on a clip", nut: "wheel on a nut" } as const;

const size = ({ outerMm, heightMm }: { outerMm: number; heightMm: number }): string =>
  `${outerMm} × ${heightMm} mm`;

/** A difference of the wheel, or of how it turns. */
export function wheelTold(
  finding: DifferenceOf<
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

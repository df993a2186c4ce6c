import type { Crimp, LeadJoint, LeadMap, LeadWarning, SpliceRefusal } from "@core/match/spliceLeads";
import { ampsText } from "@core/units/wording";

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

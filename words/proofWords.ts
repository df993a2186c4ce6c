import type { ProofStep } from "@core/proof/proofRun";

/** The name of a step of the check. */
export function proofStepTitle(step: ProofStep): string {
  if (step.kind === "check") return step.check === "drain" ? "Drain" : "Panels";
  const { setting, selectors } = step.setup;
  if (step.kind === "listen") return `Listen on ${setting}`;
  switch (step.does) {
    case "off":
      return "Off, key on";
    case "up":
      return `Up to ${setting}`;
    case "down":
      return `Down to ${setting}`;
    case "own-switch":
      return Object.entries(selectors ?? {})
        .map(([id, own]) => `Switch ${id} on ${own}`)
        .join(", ");
    case "off-again":
      return "Off again, and it stays off";
    case "key-out":
      return `Key out, switch still on ${setting}`;
    case "speed":
      return `Speed ${setting}`;
  }
}

/** The judgement of a finding. */
export const judgedWords = {
  right: "as expected",
  "too-low": "lower than expected",
  "too-high": "higher than expected",
  wrong: "not as expected",
} as const;

import type { Circuit } from "../circuit/circuit";

/** Before the panels go back, and after. */
export const proofPhases = ["open", "closed"] as const;
export type ProofPhase = (typeof proofPhases)[number];

interface StepBase {
  readonly id: string;
  readonly phase: ProofPhase;
}

/** A set-up of a final check, engine off. */
export interface ProofSetup {
  readonly key: "run" | "off";
  readonly setting: string;
  readonly selectors?: Record<string, string>;
}

/** The switch or key action in a step where the air is judged. */
export type AirStep = "off" | "up" | "down" | "own-switch" | "off-again" | "key-out" | "speed";

/** One step of a final check: a set-up and what a sound vehicle does in it; a noise; or something to inspect. */
export type ProofStep =
  | (StepBase & {
      readonly kind: "air";
      readonly does: AirStep;
      readonly setup: ProofSetup;
      readonly expected: "none" | "normal";
    })
  | (StepBase & {
      readonly kind: "listen";
      readonly setup: ProofSetup;
    })
  | (StepBase & { readonly kind: "check"; readonly check: "drain" | "panels" });

/**
 * The final check of a repaired vehicle. Before the panels go back: off, every speed up and back down, off stays off,
 * key out, every second switch, and a listen. After them: every speed once more, off, a listen for rattles, the drain,
 * the panels. The first setting is off; a sound vehicle blows normally in all others.
 */
export function proofSteps(circuit: Circuit): ProofStep[] {
  const [off = "off", ...speeds] = circuit.settings;
  const top = speeds.at(-1) ?? off;
  const still = (phase: ProofPhase, id: string, does: AirStep, key: "run" | "off", setting: string) =>
    ({ id, phase, kind: "air", does, setup: { key, setting }, expected: "none" }) as const;
  const blowing = (phase: ProofPhase, id: string, does: AirStep, setup: Omit<ProofSetup, "key">) =>
    ({ id, phase, kind: "air", does, setup: { ...setup, key: "run" }, expected: "normal" }) as const;
  const listening = (phase: ProofPhase, id: string) =>
    ({ id, phase, kind: "listen", setup: { key: "run", setting: top } }) as const;
  return [
    still("open", "off-first", "off", "run", off),
    ...speeds.map((setting) => blowing("open", `up-${setting}`, "up", { setting })),
    ...speeds
      .slice(0, -1)
      .reverse()
      .map((setting) => blowing("open", `down-${setting}`, "down", { setting })),
    ...ownSwitches(circuit).map(({ id, setting }) =>
      blowing("open", `own-${id}-${setting}`, "own-switch", {
        setting: off,
        selectors: { [id]: setting },
      }),
    ),
    still("open", "off-again", "off-again", "run", off),
    still("open", "key-out", "key-out", "off", top),
    listening("open", "listen"),
    ...speeds.map((setting) => blowing("closed", `shut-${setting}`, "speed", { setting })),
    still("closed", "shut-off", "off", "run", off),
    listening("closed", "shut-listen"),
    { id: "drain", phase: "closed", kind: "check", check: "drain" },
    { id: "panels", phase: "closed", kind: "check", check: "panels" },
  ];
}

/** Switches with positions of their own, without off. */
const ownSwitches = ({ parts }: Circuit): { id: string; setting: string }[] =>
  parts.flatMap((part) =>
    part.kind === "selector" && part.settings
      ? part.settings.slice(1).map((setting) => ({ id: part.id, setting }))
      : [],
  );

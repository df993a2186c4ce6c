import type { PartKind } from "../circuit/parts/index";

/** Kinds that wear and stand behind trim: those a plan is made for, and worth a thought while all is open. */
export const wearingKinds: ReadonlySet<PartKind> = new Set(["motor", "resistor", "module"]);

import type { PartKind } from "../circuit/parts/index";

/**
 * Kinds of part that wear and sit behind trim. Plans are made for them, and they are worth a thought while everything
 * is open.
 */
export const wearingKinds: ReadonlySet<PartKind> = new Set(["motor", "resistor", "module"]);

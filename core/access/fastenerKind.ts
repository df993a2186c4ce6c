/** What holds a part or panel, apart from plugs. */
export const fastenerKinds = ["screw", "bolt", "nut", "push-clip", "spring-clip"] as const;
export type FastenerKind = (typeof fastenerKinds)[number];
export const fastenerHeads = ["hex", "torx", "phillips", "pozidriv", "slotted", "allen"] as const;
export type FastenerHead = (typeof fastenerHeads)[number];

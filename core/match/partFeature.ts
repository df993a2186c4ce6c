/** The sides of a part as seen when its screws are driven in: they say where a plug's tab, a notch or a key is. */
export const sides = ["top", "bottom", "left", "right"] as const;
/** How a part is held: by screws, by a twist, moulded into its housing, or by a ring that replaces the moulding. */
export const mounts = ["screws", "twist-lock", "moulded", "ring"] as const;
export type Mount = (typeof mounts)[number];
/** Where its plug sits: on a side of its housing, or at the end of a tail of wires. */
export const plugSeats = [...sides, "tail"] as const;

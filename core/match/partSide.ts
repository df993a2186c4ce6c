/** The sides of a part, seen from where its screws go in: where a plug's tab, a notch or a key is. */
export const sides = ["top", "bottom", "left", "right"] as const;

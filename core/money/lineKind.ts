/** The kinds of line on an estimate or a bill, in the order a form offers them. */
export const lineKinds = ["diagnosis", "labour", "part", "consumable", "other"] as const;

/** How strong the air at the vent is, compared with a healthy vehicle. */
export const airflowSeen = ["none", "weak", "normal", "strong"] as const;

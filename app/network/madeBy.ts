/** The header by which the queue says who made an entry: the id of a person, or `nobody`. */
export const madeByHeader = "airway-person";
export const nobody = "nobody";

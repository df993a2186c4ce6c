/** What somebody does in the shop. Only an owner sees rates, backups and who works here. */
export const roles = ["owner", "technician", "apprentice"] as const;
export type Role = (typeof roles)[number];

/** Somebody who works in the shop. */
export interface Person {
  readonly id: string;
  /** As it stands beside what they did; no two are alike. */
  readonly name: string;
  readonly role: Role;
}

/** The fewest characters of a PIN. An owner's opens more, so it is longer. */
export const leastPin: Readonly<Record<Role, number>> = { owner: 6, technician: 4, apprentice: 4 };

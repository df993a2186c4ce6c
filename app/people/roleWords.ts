import type { Role } from "@db/people/person";

/** What people call a role. */
export const roleWords: Readonly<Record<Role, string>> = {
  owner: "owner",
  technician: "technician",
  apprentice: "apprentice",
};

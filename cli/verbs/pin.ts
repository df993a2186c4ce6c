import { allPeople, makePin } from "@db/people/people.server";
import { endSessionsOf } from "@db/people/sessions.server";
import { BadInput } from "../input";

/** A new PIN, and whose it is. */
export interface NewPin {
  readonly name: string;
  readonly pin: string;
}

/**
 * Gives somebody who forgot theirs a new PIN, in the data folder of this computer, and signs them out everywhere.
 * @throws BadInput if nobody has that name
 */
export async function newPin(name: string): Promise<NewPin> {
  const pin = await makePin(name, new Date());
  const people = allPeople();
  const own = people.find((each) => each.name.toLowerCase() === name.toLowerCase());
  if (pin === null || !own) {
    const names = people.map((each) => each.name).join(", ") || "nobody";
    throw new BadInput(`pin: nobody here is called ${JSON.stringify(name)}; there is ${names}`);
  }
  endSessionsOf(own.id);
  return { name: own.name, pin };
}

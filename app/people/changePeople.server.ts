import {
  addPerson,
  allPeople,
  type PeopleRefusal,
  personWith,
  removePerson,
  setPin,
} from "@db/people/people.server";
import { leastPin, roles } from "@db/people/person";
import { desk, endSessionsOf, startSession } from "@db/people/sessions.server";
import { noteSignIn } from "@db/repositories/signIns.server";
import { z } from "zod";
import { placeName, type Visitor } from "../network/visitor.server";
import { sessionHeader } from "./sessionCookie.server";

const pin = z.string().max(64);
const person = z.uuid();

/** What an owner may change about the shop's people. */
export const peopleForms = [
  z.object({
    intent: z.literal("add-person"),
    name: z.string().trim().min(1, "Type a name.").max(40, "A name has at most 40 characters."),
    role: z.enum(roles),
    pin,
  }),
  z.object({ intent: z.literal("new-pin"), person, pin }),
  z.object({ intent: z.literal("sign-out-everywhere"), person }),
  z.object({ intent: z.literal("remove-person"), person }),
] as const;
export type PeopleForm = z.infer<(typeof peopleForms)[number]>;

const refusalWords: Readonly<Record<PeopleRefusal, string>> = {
  "name-taken": "Somebody has that name already. Names stand beside readings, so no two may be alike.",
  "pin-short": `A PIN has at least ${leastPin.technician} characters, an owner’s at least ${leastPin.owner}.`,
  "last-owner": "This is the last owner. Add another owner first, or remove everybody else.",
  "first-is-owner": "The first person must be an owner.",
  "no-such-person": "That person is not listed any more.",
};

/** The result of a change: why it was refused, or null; and the session of whoever made it, if they need one now. */
export interface PeopleChanged {
  readonly problem: string | null;
  readonly sessionHeader: string | null;
}

/** Changes who works in the shop; what is done stands in the shop's trail. */
export async function changePeople(form: PeopleForm, visitor: Visitor): Promise<PeopleChanged> {
  const at = visitor.kind === "stranger" ? "" : placeName(visitor.place);
  const me = visitor.kind === "signed-in" ? visitor.person : null;
  const done = (refusal: PeopleRefusal | null, header: string | null = null): PeopleChanged => ({
    problem: refusal && refusalWords[refusal],
    sessionHeader: header,
  });
  switch (form.intent) {
    case "add-person": {
      const refusal = await addPerson(form.name, form.role, form.pin);
      if (refusal) return done(refusal);
      await noteSignIn(form.name, at, "added");
      // From the second person on, this computer requires signing in. Whoever adds them stays signed in.
      const asksNow = me !== null && allPeople().length === 2;
      return done(null, asksNow ? await sessionHeader(startSession(me.id, desk), "shop-computer") : null);
    }
    case "new-pin": {
      const refusal = await setPin(form.person, form.pin);
      if (refusal) return done(refusal);
      if (form.person !== me?.id) endSessionsOf(form.person);
      await noteSignIn(personWith(form.person)?.name ?? "", at, "new-pin");
      return done(null);
    }
    case "sign-out-everywhere":
      endSessionsOf(form.person);
      await noteSignIn(personWith(form.person)?.name ?? "", at, "out");
      return done(null);
    case "remove-person": {
      const name = personWith(form.person)?.name ?? "";
      const refusal = removePerson(form.person);
      if (refusal) return done(refusal);
      endSessionsOf(form.person);
      await noteSignIn(name, at, "removed");
      return done(null);
    }
  }
}

import { allPeople } from "@db/people/people.server";
import { lastSignIns, type SignInKind } from "@db/repositories/signIns.server";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";

const signInWords: Readonly<Record<SignInKind, string>> = {
  in: "signed in",
  out: "signed out",
  "wrong-pin": "wrong PIN",
  added: "added",
  removed: "removed",
  "new-pin": "new PIN",
};
const shown = 40;

/** Who works in the shop, and who signed in last. */
export async function peopleView() {
  const zone = shopZone();
  return {
    people: allPeople(),
    signIns: (await lastSignIns(shown)).map(({ id, at, who, place, what }) => ({
      id,
      when: dayText(at, zone),
      words: `${who}: ${signInWords[what]} on ${place}`,
    })),
  };
}

export type PeopleData = Awaited<ReturnType<typeof peopleView>>;

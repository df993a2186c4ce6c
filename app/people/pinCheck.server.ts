import { GuessLimit } from "@db/people/guessLimit";
import { checkPin } from "@db/people/people.server";
import { type Place, placeId, type Visitor } from "../network/visitor.server";

/** Three slips cost nothing. A device that goes on guessing waits up to a quarter of an hour between two guesses. */
const limit = new GuessLimit({
  place: { free: 3, firstMilliseconds: 1000, longestMilliseconds: 900_000 },
  overall: { free: 20, firstMilliseconds: 500, longestMilliseconds: 30_000 },
});

const waitText = (milliseconds: number): string => {
  const seconds = Math.ceil(milliseconds / 1000);
  return seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} minutes`;
};

/** Why a PIN was not taken: `wrong`, or in words how long to wait. */
export interface PinRefusal {
  readonly isWrong: boolean;
  readonly problem: string;
}

/** Checks somebody's PIN, typed at a place; null if it is right. */
export async function pinRefusal(person: string, pin: string, place: Place): Promise<PinRefusal | null> {
  const guess = limit.begin(placeId(place));
  if ("waitMilliseconds" in guess) {
    const wait = waitText(guess.waitMilliseconds);
    return { isWrong: false, problem: `There were too many wrong PINs. Wait ${wait} and try again.` };
  }
  if (!(await checkPin(person, pin))) return { isWrong: true, problem: "This is not the right PIN." };
  guess.right();
  return null;
}

/** Checks that whoever is signed in types their own PIN once more; null if it is right, or if nobody is named. */
export const ownPinRefusal = async (visitor: Visitor, pin: string): Promise<PinRefusal | null> =>
  visitor.kind === "signed-in" && visitor.person ? pinRefusal(visitor.person.id, pin, visitor.place) : null;

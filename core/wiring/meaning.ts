import type { Candidate, PinRole } from "./candidate";
import type { LabelledPin, Meaning } from "./piece";

/** What each label of a vehicle stands for, by its place. */
export type Meanings = ReadonlyMap<LabelledPin["place"], ReadonlyMap<string, Meaning>>;

/** A wire or fuse of another circuit. */
export const nothing: Meaning = { pin: null, fuse: null };
const none: ReadonlyMap<string, Meaning> = new Map();

/** What a labelled pin stands for. */
export const meaningOf = (meanings: Meanings, { place, label }: LabelledPin): Meaning =>
  meanings.get(place)?.get(label) ?? nothing;

/** What labels stand for, with one more. */
export const withMeaning = (meanings: Meanings, { place, label }: LabelledPin, meaning: Meaning): Meanings =>
  new Map(meanings).set(place, new Map(meanings.get(place) ?? none).set(label, meaning));

/** Whether a pin carries messages of a data bus, of which lamps and meters tell nothing. */
export const isMessage = ({ facts }: Pick<Candidate, "facts">, { pin }: Meaning): boolean =>
  facts.drive === "bus" && pin?.role === "command";

/** What a label of a place can stand for on a candidate. */
export function meaningsAt({ plugs, fuses }: Candidate, place: LabelledPin["place"]): Meaning[] {
  if (place === "fuses") return fuses.map((fuse) => ({ pin: null, fuse }));
  return (plugs.get(place)?.pins ?? []).map((pin: PinRole) => ({ pin, fuse: null }));
}

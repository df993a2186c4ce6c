import { everyWord } from "./everyWord";

/** A page of the whole shop, as the navigation lists it. */
export interface ShopPage {
  readonly to: string;
  readonly title: string;
  /** Other words people search it by. */
  readonly words: string;
  /** True for a page that only an owner may have, at the shop's own computer. */
  readonly ownerOnly?: boolean;
}

/** The pages in the navigation, in its order. */
export const mainPages: readonly ShopPage[] = [
  { to: "/", title: "Jobs", words: "board open jobs home" },
  { to: "/shelf", title: "Shelf", words: "circuit shelf circuits wiring diagrams" },
  { to: "/practice", title: "Practice", words: "practice bay lessons learner training" },
  { to: "/sums", title: "Sums", words: "bench sums calculator wire drop fuse shunt" },
  { to: "/records", title: "Records", words: "closed jobs history search" },
  { to: "/settings", title: "Settings", words: "rates and tax shop name currency", ownerOnly: true },
];

/** Pages that the search finds and the navigation does not list. */
const otherPages: readonly ShopPage[] = [
  { to: "/jobs/new", title: "New job", words: "start job vehicle comes in" },
  {
    to: "/jobs/no-diagram",
    title: "New job without a diagram",
    words: "quick start unknown vehicle no wiring diagram",
  },
  {
    to: "/phones",
    title: "Phones and people",
    words: "network pair device phone tablet qr code people pin sign in owner technician apprentice",
    ownerOnly: true,
  },
  { to: "/trace", title: "Trace a circuit", words: "draw new circuit from its wiring diagram" },
  { to: "/bring-in", title: "Import a circuit or a job", words: "file airway-circuit airway-case bundle" },
  { to: "/records/figures", title: "Statistics", words: "charts verdicts comebacks billed" },
  { to: "/records/learnt", title: "What the shop has learned", words: "odds priors repair times learning" },
  { to: "/records/keeping", title: "Backup and restore", words: "export shop bundle", ownerOnly: true },
  { to: "/records/in", title: "Import records", words: "closed jobs csv json", ownerOnly: true },
  { to: "/practice/trainer", title: "Set a practice case", words: "trainer hidden fault" },
];

/** The pages in the navigation of somebody who runs the shop, or does not. */
export const navigationFor = (runsShop: boolean): readonly ShopPage[] =>
  mainPages.filter(({ ownerOnly }) => runsShop || !ownerOnly);

/** The pages whose title or words contain every word of a query, as far as somebody may have them. */
export function pagesFor(query: string, runsShop: boolean): ShopPage[] {
  const matches = everyWord(query);
  return [...mainPages, ...otherPages].filter(
    ({ title, words, ownerOnly }) => (runsShop || !ownerOnly) && matches(`${title} ${words}`),
  );
}

import type { SortCount } from "@core/access/sortCount";
import type { TrayNote, TrayNoteKind } from "@core/access/tray";

/** What became of a screw, as something to choose. */
export const trayNoteTitles: Readonly<Record<TrayNoteKind, string>> = {
  lost: "lost in the car",
  found: "found again",
  new: "a new one taken",
  spare: "left over, not needed",
};

/** What became of some screws: `1 × T20 screw, lost in the car: behind the carpet`. */
export const trayNoteText = ({ kind, sort, count, words }: TrayNote & { readonly words: string }): string =>
  `${count} × ${sort}, ${trayNoteTitles[kind]}${words ? `: ${words}` : ""}`;

/** Screws by sort: `1 × T20 screw, 2 × push clip`. */
export const screwsText = (counts: readonly SortCount[]): string =>
  counts.map(({ sort, count }) => `${count} × ${sort}`).join(", ");

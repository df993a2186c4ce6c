import { type AccessStep, type Routes, tabs } from "./plan";

/** Ways as typed: `mat + flap / glove-box` is both of the first two, or the third. */
export const routesText = (ways: Routes): string => ways.map((way) => way.join(" + ")).join(" / ");

/** Reads ways as typed; an empty text is no way. */
export function parseRoutes(text: string): string[][] {
  return text
    .split("/")
    .map((way) => way.split("+").flatMap((id) => id.trim() || []))
    .filter((way) => way.length > 0);
}

type Plugs = NonNullable<AccessStep["plugs"]>;

/** Plugs as typed: `X5 press, lamp`. */
export const plugsText = (plugs: Plugs): string =>
  plugs.map(({ id, tab }) => (tab ? `${id} ${tab}` : id)).join(", ");

/** Reads plugs as typed; a last word that names a kind of tab is the tab. */
export const parsePlugs = (text: string): Plugs =>
  words(text).map((own) => {
    const tab = tabs.find((one) => own.endsWith(` ${one}`));
    return tab ? { id: own.slice(0, -tab.length).trim(), tab } : { id: own };
  });

/** A list typed with commas. */
export const words = (text: string): string[] => text.split(",").flatMap((own) => own.trim() || []);

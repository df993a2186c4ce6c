/** The theme chosen by hand; `auto` follows the device. */
export const themes = ["auto", "day", "night"] as const;
export type Theme = (typeof themes)[number];

/** The choices a browser keeps: the theme, and whether letter keys enter readings. */
export interface Preferences {
  readonly theme: Theme;
  readonly keys: boolean;
}

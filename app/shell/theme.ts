/** The theme chosen by hand; `auto` follows the device. */
export const themes = ["auto", "day", "night"] as const;
export type Theme = (typeof themes)[number];

/** The choices a browser keeps: the theme, letter keys that enter readings, and whole visits. */
export interface Preferences {
  readonly theme: Theme;
  readonly keys: boolean;
  /** Whether the probe page plans a whole visit, or shows one test at a time. */
  readonly visits: boolean;
}

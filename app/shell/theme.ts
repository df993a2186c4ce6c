/** The theme chosen by hand; `auto` follows the device. */
export const themes = ["auto", "day", "night"] as const;
export type Theme = (typeof themes)[number];

/** What a person chose in this browser: the theme, whether letter keys enter readings, and how tests are planned. */
export interface Preferences {
  readonly theme: Theme;
  readonly keys: boolean;
  /** Whether the probe page plans a whole visit, or shows one test at a time. */
  readonly visits: boolean;
}

/** The look chosen by hand; `auto` follows the device. */
export const themes = ["auto", "day", "night"] as const;
export type Theme = (typeof themes)[number];

/** What a browser has chosen for itself: the theme, and whether letter keys enter readings. */
export interface Preferences {
  readonly theme: Theme;
  readonly keys: boolean;
}

/** The theme and key switch kept in a request's cookies. */
export function preferences(request: Request): Preferences {
  const cookies = new Map(
    (request.headers.get("cookie") ?? "").split(";").map((pair) => {
      const [name = "", value = ""] = pair.trim().split("=");
      return [name, value] as const;
    }),
  );
  const theme = themes.find((known) => known === cookies.get("theme")) ?? "auto";
  return { theme, keys: cookies.get("keys") !== "off" };
}

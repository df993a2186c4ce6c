import { Form, useLocation, useRouteLoaderData } from "react-router";
import type { Preferences } from "./theme";

const nextTheme = { auto: "night", night: "day", day: "auto" } as const;

/** Chooses between the device's theme, night and day. */
export function ThemeSwitch() {
  const theme = useRouteLoaderData<Preferences>("root")?.theme ?? "auto";
  const { pathname } = useLocation();
  return (
    <Form method="post" action="/theme" className="no-print">
      <input type="hidden" name="back" value={pathname} />
      <button className="btn px-3 text-base" name="theme" value={nextTheme[theme]} type="submit">
        Theme: {theme}
      </button>
    </Form>
  );
}

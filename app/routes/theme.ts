import { redirect } from "react-router";
import { z } from "zod";
import { keepPreferences } from "../shell/preferences.server";
import { sentForm } from "../shell/sentForm.server";
import { themes } from "../shell/theme";
import type { Route } from "./+types/theme";

const form = z.object({
  theme: z.enum(themes).optional(),
  keys: z.enum(["on", "off"]).optional(),
  visits: z.enum(["on", "off"]).optional(),
  back: z
    .string()
    .regex(/^\/(?!\/)[\w\-/]*$/)
    .catch("/"),
});

/** Stores the theme, the letter keys or the whole visits in a cookie and redirects back. */
export async function action({ request }: Route.ActionArgs) {
  const { theme, keys, visits, back } = form.parse(Object.fromEntries(await sentForm(request)));
  const chosen = {
    ...(theme ? { theme } : {}),
    ...(keys ? { keys: keys === "on" } : {}),
    ...(visits ? { visits: visits === "on" } : {}),
  };
  return redirect(back, { headers: { "Set-Cookie": await keepPreferences(request, chosen) } });
}

export const loader = () => redirect("/");

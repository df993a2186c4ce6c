import { redirect } from "react-router";
import { z } from "zod";
import { themes } from "../shell/theme";
import type { Route } from "./+types/theme";

const form = z.object({
  theme: z.enum(themes).optional(),
  keys: z.enum(["on", "off"]).optional(),
  back: z
    .string()
    .regex(/^\/(?!\/)[\w\-/]*$/)
    .catch("/"),
});

/** Keeps the theme or the letter keys' switch in a cookie and goes back. */
export async function action({ request }: Route.ActionArgs) {
  const { theme, keys, back } = form.parse(Object.fromEntries(await request.formData()));
  const headers = new Headers();
  const year = "Path=/; Max-Age=31536000; SameSite=Lax";
  if (theme) headers.append("Set-Cookie", `theme=${theme}; ${year}`);
  if (keys) headers.append("Set-Cookie", `keys=${keys}; ${year}`);
  return redirect(back, { headers });
}

export const loader = () => redirect("/");

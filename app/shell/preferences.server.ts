import { createCookie } from "react-router";
import { z } from "zod";
import { type Preferences, themes } from "./theme";

const yearSeconds = 31_536_000;
const cookie = createCookie("preferences", { path: "/", maxAge: yearSeconds, sameSite: "lax" });

const kept = z.object({
  theme: z.enum(themes).catch("auto"),
  keys: z.boolean().catch(true),
  visits: z.boolean().catch(true),
});

/** The browser's choices; defaults for what it has not chosen, or if its cookie cannot be read. */
export async function preferencesOf(request: Request): Promise<Preferences> {
  const sent: unknown = await cookie.parse(request.headers.get("cookie"));
  return kept.catch({ theme: "auto", keys: true, visits: true }).parse(sent);
}

/** The header that stores some choices in a browser and keeps the others. */
export const keepPreferences = async (request: Request, chosen: Partial<Preferences>): Promise<string> =>
  cookie.serialize({ ...(await preferencesOf(request)), ...chosen });

// The choice of theme, kept in a cookie.
import { describe, expect, test } from "@jest/globals";
import { preferencesOf } from "../shell/preferences.server";
import * as theme from "./theme";

describe("the theme", () => {
  const set = async (fields: Record<string, string>) => {
    const body = new FormData();
    for (const [name, value] of Object.entries(fields)) body.append(name, value);
    const request = new Request("http://127.0.0.1/theme", { method: "POST", body });
    return await theme.action({ request } as never);
  };

  test("is stored in a cookie and leads back to the page it came from", async () => {
    const response = await set({ theme: "night", keys: "off", back: "/jobs/4/probe" });
    expect(response.headers.get("location")).toBe("/jobs/4/probe");
    const [cookie = ""] = response.headers.getSetCookie();
    const sent = new Request("http://127.0.0.1/", { headers: { cookie: cookie.split(";")[0] ?? "" } });
    expect(await preferencesOf(sent)).toEqual({ theme: "night", keys: false, visits: true });
  });

  test.each(["//elsewhere.test", "https://elsewhere.test", "/\\elsewhere.test", "javascript:alert(1)", ""])(
    "never redirects to %j",
    async (back) => {
      expect((await set({ theme: "day", back })).headers.get("location")).toBe("/");
    },
  );
});

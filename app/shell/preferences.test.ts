import { expect, test } from "@jest/globals";
import { keepPreferences, preferencesOf } from "./preferences.server";

const request = (cookie?: string) =>
  new Request("http://127.0.0.1/", { headers: cookie === undefined ? {} : { cookie } });
const sentBack = (header: string): string => header.split(";")[0] ?? "";

test("nothing chosen is the device's own theme, letter keys on", async () => {
  expect(await preferencesOf(request())).toEqual({ theme: "auto", keys: true });
});

test("what is chosen is kept for a year, one choice leaving the other as it was", async () => {
  const night = await keepPreferences(request(), { theme: "night" });
  expect(night).toContain("Max-Age=31536000; Path=/; SameSite=Lax");
  expect(await preferencesOf(request(sentBack(night)))).toEqual({ theme: "night", keys: true });
  const both = await keepPreferences(request(sentBack(night)), { keys: false });
  expect(await preferencesOf(request(sentBack(both)))).toEqual({ theme: "night", keys: false });
});

test.each([
  "theme=night",
  "preferences=<script>",
  "preferences=",
  "preferences",
  `preferences=${btoa('{"theme":"pink","keys":3}')}`,
  `preferences=${btoa("[]")}`,
])("a cookie the form could not be read; load the page again, %j, is nothing chosen", async (cookie) => {
  expect(await preferencesOf(request(cookie))).toEqual({ theme: "auto", keys: true });
});

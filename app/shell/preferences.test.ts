import { expect, test } from "@jest/globals";
import { keepPreferences, preferencesOf } from "./preferences.server";

const request = (cookie?: string) =>
  new Request("http://127.0.0.1/", { headers: cookie === undefined ? {} : { cookie } });
const sentBack = (header: string): string => header.split(";")[0] ?? "";

test("without a choice the theme is the device's and letter keys are on", async () => {
  expect(await preferencesOf(request())).toEqual({ theme: "auto", keys: true, visits: true });
});

test("a choice is stored for a year and leaves the other one unchanged", async () => {
  const night = await keepPreferences(request(), { theme: "night" });
  expect(night).toContain("Max-Age=31536000; Path=/; SameSite=Lax");
  expect(await preferencesOf(request(sentBack(night)))).toEqual({ theme: "night", keys: true, visits: true });
  const both = await keepPreferences(request(sentBack(night)), { keys: false });
  expect(await preferencesOf(request(sentBack(both)))).toEqual({ theme: "night", keys: false, visits: true });
});

test.each([
  "theme=night",
  "preferences=<script>",
  "preferences=",
  "preferences",
  `preferences=${btoa('{"theme":"pink","keys":3}')}`,
  `preferences=${btoa("[]")}`,
])("a cookie that cannot be read, %j, counts as no choice", async (cookie) => {
  expect(await preferencesOf(request(cookie))).toEqual({ theme: "auto", keys: true, visits: true });
});

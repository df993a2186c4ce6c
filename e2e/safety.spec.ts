import type { ChildProcess } from "node:child_process";
import { demoData, expect, startServer, stopServer, test } from "./shop";
import { answerByKeys, standing } from "./steps";

test("pages carry a strict content-security policy and nothing breaks it", async ({ page }) => {
  const broken: string[] = [];
  page.on("console", (message) => {
    if (message.type() === "error") broken.push(message.text());
  });
  page.on("pageerror", (error) => broken.push(error.message));
  const response = await page.goto("/jobs/4/probe");
  const policy = response?.headers()["content-security-policy"] ?? "";
  expect(policy).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]{20,}'/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(response?.headers()["x-powered-by"]).toBeUndefined();
  await page.getByRole("radio", { name: /^2/ }).click();
  await page.goto("/");
  await page.waitForLoadState("networkidle");
  expect(broken).toEqual([]);
});

test("actions from another site, without an origin or too large are refused", async ({
  request,
  baseURL,
}) => {
  const form = { intent: "school", school: "motor-first" };
  const post = (headers: Record<string, string>, data: Record<string, string> = form) =>
    request.post("/jobs/4/probe", { form: data, headers, maxRedirects: 0 });
  expect((await post({ origin: "http://elsewhere.test" })).status()).toBe(403);
  expect((await post({ "sec-fetch-site": "cross-site" })).status()).toBe(403);
  expect((await post({})).status()).toBe(403);
  const own = { origin: baseURL ?? "" };
  expect((await post(own, { intent: "x".repeat(300_000) })).status()).toBe(413);
  expect((await post(own, { intent: "unheard-of" })).status()).toBe(422);
  expect((await request.get("/jobs/99999/probe")).status()).toBe(404);
  expect((await request.get("/jobs/4%27--/probe")).status()).toBe(404);
});

test("a script in a field stays text", async ({ page }) => {
  const script = '<script>window.hit=1</script><img src=x onerror="window.hit=1">';
  await page.goto("/jobs/new");
  await page
    .getByLabel("Vehicle", { exact: true })
    .selectOption({ label: "Tarnwick Dunlin truck, harbour truck 1" });
  await page.getByLabel("Complaint").fill(script);
  await page.getByRole("button", { name: "Start job" }).click();
  await page.getByRole("link", { name: "Continue to Probe" }).waitFor();
  await page.goto("/");
  await expect(page.getByText(script)).toBeVisible();
  expect(await page.evaluate(() => "hit" in window)).toBe(false);
});

test("a form that cannot be taken says what to change and keeps what was typed", async ({ page }) => {
  await page.goto("/jobs/new");
  await page.getByLabel("Vehicle", { exact: true }).selectOption("new");
  await page.getByLabel("Nickname or fleet number").fill("net store van");
  await page.getByRole("button", { name: "Start job" }).click();
  await expect(page.getByText("Make and model: is required for a new vehicle")).toBeVisible();
  await expect(page.getByLabel("Nickname or fleet number")).toHaveValue("net store van");
});

test("a doubled tap stores one reading; a wrong value stores none", async ({ page }) => {
  await page.goto("/jobs/4/probe");
  const before = await standing(page);
  await page.getByText("Enter another test").click();
  await page.locator('select[name="test"]').selectOption("volts");
  await page.getByLabel("Red on").selectOption("X4:1");
  await page.getByLabel("Reading (V)").fill("much");
  await page.getByRole("button", { name: "Save reading" }).click();
  await expect(page.getByRole("alert")).toContainText('volts: expected number, got "much"');
  expect(await standing(page)).toBe(before);
  // The key leaves the field while the server is asked, and the field returns with its text once it was refused.
  const field = page.getByLabel("Reading (V)");
  await field.fill("a lot");
  await field.press("Enter");
  await expect(field).toBeFocused();
  await expect(field).toHaveValue("a lot");
  // Escape leaves the field, so that a letter is a key of the page again.
  await field.press("Escape");
  await expect(field).not.toBeFocused();
  expect(await standing(page)).toBe(before);
  await page.locator('select[name="test"]').selectOption("look");
  await page.getByRole("button", { name: "Save reading" }).dblclick();
  await expect.poll(() => standing(page)).toBe(before + 1);
  await page.waitForTimeout(500);
  await page.reload();
  expect(await standing(page)).toBe(before + 1);
});

test("readings survive a reload and the server being stopped hard and started again", async ({ page }) => {
  const port = 4398;
  const data = demoData();
  const start = (): Promise<ChildProcess> => startServer(port, data);
  let server = await start();
  try {
    await page.goto(`http://127.0.0.1:${port}/jobs/5/probe`);
    const before = await standing(page);
    await answerByKeys(page);
    await expect.poll(() => standing(page)).toBe(before + 1);
    await stopServer(server, "SIGKILL");
    server = await start();
    await page.reload();
    expect(await standing(page)).toBe(before + 1);
    const closed = new Promise((resolve) => server.once("exit", resolve));
    server.kill("SIGTERM");
    expect(await closed).toBe(0);
  } finally {
    server.kill("SIGKILL");
  }
});

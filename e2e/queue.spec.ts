// The server stopped while readings are entered, on a server of its own: nothing is lost, and it says so.
import type { ChildProcess } from "node:child_process";
import { demoData, expect, type Page, startServer, stopServer, test } from "./shop";
import { standing } from "./steps";

const port = 4395;
const address = `http://127.0.0.1:${port}`;
let data = "";
let server: ChildProcess | null = null;

async function start(): Promise<void> {
  data ||= demoData();
  server = await startServer(port, data);
}

async function stop(): Promise<void> {
  const running = server;
  server = null;
  if (running) await stopServer(running);
}

test.afterAll(stop);

const lookOf = (page: Page) => page.locator('[aria-labelledby="next-look"] input[name="look"]').inputValue();

test("readings entered while the server is away wait, are marked, warn on leaving, and are stored in the end", async ({
  page,
}) => {
  await start();
  await page.goto(`${address}/jobs/5/probe`);
  await page.waitForLoadState("networkidle");
  const before = await standing(page);
  await stop();

  // One offered look, and one reading at a point of one's own choice.
  const look = await lookOf(page);
  const choice = page.locator("[data-choice]").first();
  if (await choice.isVisible()) await choice.click();
  else await page.locator("[data-about]").first().click();
  await expect(page.locator("[data-waiting]")).toHaveCount(1);
  await expect(page.getByText("The server does not answer.")).toBeVisible();
  // What waits is not asked for again.
  await expect.poll(() => lookOf(page)).not.toBe(look);
  await page.locator('[data-point="F11.in"]').click();
  await page.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  await expect(page.locator("[data-waiting]")).toHaveCount(2);
  expect(await standing(page)).toBe(before);

  // Taken back before it was ever sent.
  await page.keyboard.press("u");
  await expect(page.locator("[data-waiting]")).toHaveCount(1);
  await page.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  await expect(page.locator("[data-waiting]")).toHaveCount(2);

  // Leaving warns; staying keeps all.
  let warned = 0;
  page.on("dialog", (dialog) => {
    warned += 1;
    expect(dialog.type()).toBe("beforeunload");
    void dialog.dismiss();
  });
  await page.close({ runBeforeUnload: true });
  await expect.poll(() => warned).toBe(1);
  await expect(page.locator("[data-waiting]")).toHaveCount(2);

  await start();
  await expect.poll(() => standing(page)).toBe(before + 2);
  await expect(page.locator("[data-waiting]")).toHaveCount(0);
  await page.reload();
  expect(await standing(page)).toBe(before + 2);
  expect(warned).toBe(1);
  await expect(page.locator("[data-reading]").first()).toContainText("touch F11.in");
});

test("a page closed with readings waiting hands them to the next one", async ({ context }) => {
  if (!server) await start();
  const page = await context.newPage();
  await page.goto(`${address}/jobs/4/probe`);
  await page.waitForLoadState("networkidle");
  const before = await standing(page);
  await stop();
  await page.locator("[data-point]").first().click();
  await page.getByRole("button", { name: "dark", exact: true }).first().click();
  await expect(page.locator("[data-waiting]")).toHaveCount(1);
  await page.close();
  await start();
  const next = await context.newPage();
  await next.goto(`${address}/jobs/4/probe`);
  await expect.poll(() => standing(next)).toBe(before + 1);
});

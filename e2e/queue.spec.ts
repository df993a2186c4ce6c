// The server stops while readings are entered, on a server of its own: nothing is lost, and the page says so.
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

const lookOf = (page: Page) =>
  page.locator('[aria-labelledby="next-look"] input[name="look"]').first().inputValue();

test("readings entered while the server is away wait, are marked, warn on leaving, and are stored in the end", async ({
  page,
}) => {
  await start();
  await page.goto(`${address}/jobs/5/probe`);
  await page.waitForLoadState("networkidle");
  const before = await standing(page);
  await stop();

  // One suggested test, and one reading at a chosen point.
  const look = await lookOf(page);
  const choice = page.locator("[data-choice]").first();
  if (await choice.isVisible()) await choice.click();
  else await page.locator("[data-about]").first().click();
  await expect(page.locator("[data-waiting]")).toHaveCount(1);
  await expect(page.getByText("The server does not answer.")).toBeVisible();
  // A waiting test is not suggested again.
  await expect.poll(() => lookOf(page)).not.toBe(look);
  await page.locator('[data-point="F11.in"]').click();
  await page.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  await expect(page.locator("[data-waiting]")).toHaveCount(2);
  expect(await standing(page)).toBe(before);

  // Removed before it was ever sent.
  await page.keyboard.press("u");
  await expect(page.locator("[data-waiting]")).toHaveCount(1);
  await page.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  await expect(page.locator("[data-waiting]")).toHaveCount(2);

  // Leaving warns; staying keeps everything.
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
  await expect(page.locator("[data-reading]").first()).toContainText("(F11.in)");
});

test("a page closed with waiting readings passes them to the next one", async ({ context }) => {
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

test("checks, complaint and a note with its photo wait for an absent server, even across a reload", async ({
  context,
}) => {
  if (!server) await start();
  const prove = await context.newPage();
  await prove.goto(`${address}/jobs/2/prove`);
  const heard = await context.newPage();
  await heard.goto(`${address}/jobs/4/complaint`);
  const probe = await context.newPage();
  await probe.goto(`${address}/jobs/4/probe`);
  await probe.waitForLoadState("networkidle");
  await stop();

  const check = prove.locator('[data-step="panels"]').getByRole("button", { name: "not good" });
  await check.click();
  await expect(prove.getByText("The server does not answer.")).toBeVisible();
  await expect(check).toHaveAttribute("aria-pressed", "true");
  await prove.close();

  await heard.getByRole("button", { name: "2: weak" }).click();
  await heard.getByLabel("Complaint in the customer's words").fill("It died on the ferry.");
  await heard.getByRole("button", { name: "Save the complaint" }).click();
  await expect(heard.getByText("The server does not answer.")).toBeVisible();
  await heard.close();

  const shot = await probe.screenshot({ clip: { x: 0, y: 0, width: 120, height: 80 } });
  await probe.getByRole("button", { name: "Add a note to this job" }).click();
  const dialog = probe.getByRole("dialog");
  await dialog.getByLabel("Words").fill("Pin 2 has gone brown");
  await dialog.getByLabel(/^Photo/).setInputFiles({ name: "a.png", mimeType: "image/png", buffer: shot });
  await dialog.getByRole("button", { name: "Save note" }).click();
  await expect(dialog).toBeHidden();
  await expect(probe.locator("[data-waiting]")).toContainText(["note: Pin 2 has gone brown"]);
  await probe.close();

  await start();
  const page = await context.newPage();
  await page.goto(`${address}/jobs/4/probe`);
  await expect(page.locator("[data-note]")).toContainText("Pin 2 has gone brown");
  // A picture further down is loaded when it comes into view.
  await page.locator("[data-note]").getByRole("img").scrollIntoViewIfNeeded();
  await expect
    .poll(() =>
      page
        .locator("[data-note]")
        .getByRole("img")
        .evaluate((image) => (image as HTMLImageElement).naturalWidth),
    )
    .toBe(120);
  await page.goto(`${address}/jobs/4/complaint`);
  await expect(page.getByRole("button", { name: "2: weak" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByLabel("Complaint in the customer's words")).toHaveValue("It died on the ferry.");
  await page.goto(`${address}/jobs/2/prove`);
  await expect(page.locator('[data-step="panels"]').getByText("not good: not as expected")).toBeVisible();
});

test("an entry of a stale tab is neither carried out without a decision, nor lost", async ({ context }) => {
  if (!server) await start();
  const [stale, fresh] = [await context.newPage(), await context.newPage()];
  // Only a page that its pushes do not reach can be stale: any other one follows at once.
  await stale.route(/\/live$/, (route) => route.abort());
  for (const page of [stale, fresh]) await page.goto(`${address}/jobs/6/verdict`);
  await fresh.getByRole("button", { name: /^(Mark as fitted|Mark as fitted anyway)$/ }).click();
  await fresh.waitForURL(/prove$/);
  await stale.getByRole("button", { name: "Mark part as ordered" }).click();
  const kept = stale.getByRole("region", { name: "Not saved, because the job had changed" });
  await expect(kept.getByText(/is ordered.*The part was fitted on/)).toBeVisible();
  await kept.getByRole("button", { name: "Save it now" }).click();
  await expect(kept.getByRole("listitem")).toHaveCount(1);
  await kept.getByRole("button", { name: "Discard it" }).click();
  await expect(kept).toHaveCount(0);
  await fresh.reload();
  await expect(fresh).toHaveURL(/prove$/);
});

test("a page that its pushes do not reach shows its own entries all the same", async ({ context }) => {
  await stop();
  await start();
  const cut = await context.newPage();
  await cut.route("**/live?*", (route) => route.abort());
  // Others look at the job, so the server pushes the page instead of answering with it.
  for (const page of [await context.newPage(), await context.newPage()]) {
    const heard = page.waitForResponse(/\/live\?/);
    await page.goto(`${address}/jobs/5/probe`);
    await heard;
  }
  await cut.goto(`${address}/jobs/5/probe`);
  const before = await standing(cut);
  const answered = cut.waitForResponse(/\/jobs\/5\/entries/);
  await cut.locator('[data-point="F11.in"]').click();
  await cut.getByRole("region", { name: "F11.in" }).getByRole("button", { name: "bright" }).click();
  expect(await (await answered).json()).toMatchObject({ isPushed: true });
  await expect.poll(() => standing(cut)).toBe(before + 1);
});

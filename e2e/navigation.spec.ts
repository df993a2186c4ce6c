// Finding the way: the navigation on every page, the search, titles, and where a page starts.
import { expect, type Page, test } from "./shop";

const pages = ["/", "/shelf", "/practice", "/sums", "/records", "/settings"];
const inJob = ["complaint", "probe", "verdict", "motor", "parts", "estimate", "fit", "prove", "close"];

test("every page has the navigation, one heading of the first level and a title of its own", async ({
  page,
}) => {
  const titles = new Set<string>();
  for (const path of [...pages, ...inJob.map((step) => `/jobs/4/${step}`)]) {
    await page.goto(path);
    for (const name of ["Jobs", "Shelf", "Practice", "Sums", "Records", "Settings"])
      await expect(
        page
          .getByRole("navigation", { name: "Airway", exact: true })
          .getByRole("link", { name, exact: true }),
      ).toBeVisible();
    await expect(page.locator("h1")).toHaveCount(1);
    titles.add(await page.title());
  }
  expect(titles.size).toBe(pages.length + inJob.length);
});

/** Counts the taps and keys of a task. */
class Hand {
  taps = 0;
  constructor(readonly page: Page) {}
  async tap(name: string | RegExp, role: "link" | "button" = "link"): Promise<void> {
    this.taps += 1;
    await this.page.getByRole(role, { name }).first().click();
  }
}

test.describe("at most four taps", () => {
  test("a vehicle's job of last month is found by search", async ({ page }) => {
    await page.goto("/jobs/4/verdict");
    // Keys work once the page's scripts run.
    await page.waitForLoadState("networkidle");
    const hand = new Hand(page);
    await page.keyboard.press("Control+k");
    await page.getByRole("searchbox").fill("bakery");
    await hand.tap("bakery hatchback Skerry Godwit hatchback");
    await page.waitForURL(/records\/vehicle/);
    await page.locator("[data-job] a").last().click();
    await expect(page.getByText("Found and done")).toBeVisible();
    expect(hand.taps + 1).toBeLessThanOrEqual(4);
  });

  test("the shelf is opened from inside a job, and back leads to the job where it was", async ({ page }) => {
    await page.goto("/jobs/18/close");
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("End");
    const scrolled = () => page.evaluate(() => Math.round(window.scrollY));
    // The key scrolls smoothly, so the position counts once it is the end of the page.
    const end = () =>
      page.evaluate(() => Math.round(document.documentElement.scrollHeight - window.innerHeight));
    await expect.poll(async () => Math.abs((await scrolled()) - (await end()))).toBeLessThan(2);
    const before = await scrolled();
    expect(before).toBeGreaterThan(300);
    const hand = new Hand(page);
    await hand.tap("Shelf");
    await page.waitForURL(/\/shelf$/);
    await expect.poll(scrolled).toBe(0);
    await page.goBack();
    await page.waitForURL(/close/);
    await expect.poll(async () => Math.abs((await scrolled()) - before)).toBeLessThan(5);
    expect(hand.taps).toBe(1);
  });

  test("a practice case is started", async ({ page }) => {
    await page.goto("/jobs/4/verdict");
    const hand = new Hand(page);
    await hand.tap("Practice");
    await page.getByLabel(/label/i).first().fill("bay one");
    await hand.tap(/^(Begin|Add)$/, "button");
    await hand.tap("Start case", "button");
    await page.waitForURL(/practice\/cases/, { timeout: 120_000 });
    expect(hand.taps).toBeLessThanOrEqual(4);
  });

  test("a reading of an earlier day is corrected", async ({ page }) => {
    await page.goto("/");
    const hand = new Hand(page);
    await hand.tap("Tarnwick Dunlin truck, harbour truck 1");
    await page.waitForURL(/jobs\/4/);
    await page.waitForLoadState("networkidle");
    await hand.tap("Delete reading 1", "button");
    await expect(page.getByRole("button", { name: "Restore reading 1" })).toBeVisible();
    expect(hand.taps).toBeLessThanOrEqual(4);
  });
});

test("the search opens by its keys, takes Enter, and leaves a slash in a field alone", async ({ page }) => {
  await page.goto("/jobs/new");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("Complaint").fill("on");
  await page.getByLabel("Complaint").press("/");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(page.getByLabel("Complaint")).toHaveValue("on/");
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("/");
  const search = page.getByRole("searchbox");
  await expect(search).toBeFocused();
  await search.fill("backup");
  await expect(page.getByRole("dialog").getByRole("link", { name: "Backup and restore" })).toBeVisible();
  await search.press("Enter");
  await page.waitForURL(/records\/keeping/);
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.goto("/find?q=nothing%20of%20the%20kind");
  await expect(page.getByText("Nothing found. Use fewer words.")).toBeVisible();
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test("the menu leads from a job to every page, and the job's steps stay below", async ({ page }) => {
    await page.goto("/jobs/4/verdict");
    await page.waitForLoadState("networkidle");
    const steps = page.getByRole("navigation", { name: "Steps of the job" });
    await expect(steps.getByRole("link", { name: "Verdict" })).toBeInViewport();
    // The bar is scrolled to the step; the menu stays at its edge.
    const menu = await page.getByRole("button", { name: "Menu" }).boundingBox();
    expect(menu?.x).toBe(0);
    await page.getByRole("button", { name: "Menu" }).click();
    await page.getByRole("dialog").getByRole("link", { name: "Records" }).click();
    await page.waitForURL(/\/records$/);
    await expect(page.getByRole("dialog")).toHaveCount(0);
  });
});

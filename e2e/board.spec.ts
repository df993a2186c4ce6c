import { expect, test } from "./shop";

test("the board is searched, sorted and shown group by group", async ({ page }) => {
  await page.goto("/");
  await page.waitForLoadState("networkidle");
  const rows = page.locator("section[aria-labelledby^=group-]").getByRole("listitem");
  const all = await rows.count();
  const trucks = await rows.filter({ hasText: "Tarnwick Dunlin truck" }).count();
  expect(trucks).toBeLessThan(all);
  await page.getByLabel("Search the board").fill("dunlin truck");
  await expect(rows).toHaveCount(trucks);
  await expect(page).toHaveURL(/words=dunlin/);
  // Going to a job and back keeps the search.
  await page.getByRole("link", { name: "harbour truck 1" }).first().click();
  await page.waitForURL(/jobs\/\d+/);
  await page.goBack();
  await expect(page.getByLabel("Search the board")).toHaveValue("dunlin truck");
  await page.getByLabel("Search the board").fill("no such thing");
  await expect(page.getByText("No job on the board has “no such thing”")).toBeVisible();
  // The search is emptied and a group is tapped at once, before the address has followed.
  const toCheck = page.getByRole("button", { name: /^To check/ });
  await page.getByLabel("Search the board").evaluate((field: HTMLInputElement) => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, "");
    field.dispatchEvent(new Event("input", { bubbles: true }));
    for (const button of document.querySelectorAll("button"))
      if (button.textContent?.startsWith("To check")) button.click();
  });
  await expect(toCheck).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByLabel("Search the board")).toHaveValue("");
  await expect(page.getByRole("heading", { level: 2, name: /^To test/ })).toHaveCount(0);
  await expect(page.getByRole("heading", { level: 2, name: /^To check/ })).toBeVisible();
});

test("a part that arrives moves its job to the repairs", async ({ page }) => {
  await page.goto("/?show=part-awaited");
  const waiting = page.getByRole("link", { name: "ferry crew van 5" });
  await expect(waiting).toBeVisible();
  await page.getByRole("button", { name: "Mark as arrived" }).first().click();
  await expect(waiting).toHaveCount(0);
  await page.getByRole("button", { name: /^To repair/ }).click();
  await expect(waiting).toBeVisible();
  await waiting.click();
  await page.waitForURL(/\/fit$/);
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test("the board is a compact list that does not scroll sideways", async ({ page }) => {
    await page.goto("/");
    const rows = page.locator("section[aria-labelledby^=group-]").getByRole("listitem");
    await expect(rows.first()).toBeVisible();
    const { wide, tall } = await page.evaluate(() => ({
      wide: document.documentElement.scrollWidth,
      tall: document.documentElement.scrollHeight,
    }));
    expect(wide).toBeLessThanOrEqual(390);
    expect(tall).toBeLessThan(500 + 130 * (await rows.count()));
  });
});

import { readFileSync } from "node:fs";
import { parse } from "csv-parse/sync";
import { accessible, learnAndPractise } from "./practiceSteps";
import { expect, test } from "./shop";

test("three lessons, a case won and one lost on purpose; nothing sent reveals the fault", async ({
  page,
}) => {
  await learnAndPractise(page, "apprentice 1", (target) => target.click());
  await page.goto("/practice?learner=apprentice%201");
  await expect(page.getByRole("heading", { name: "How good are your odds?" })).toBeVisible();
  await expect(page.getByText(/over 2 purchases/)).toBeVisible();
  const saved = page.waitForEvent("download");
  await page.getByRole("link", { name: "Progress as CSV" }).click();
  const rows = parse<Record<string, string>>(readFileSync(await (await saved).path()), { columns: true });
  expect(rows.filter(({ what, state }) => what === "lesson" && state !== "new").length).toBe(3);
  expect(
    rows
      .filter(({ what }) => what === "case")
      .map(({ state }) => state)
      .sort(),
  ).toEqual(["gave-up", "held"]);
});

test("a bench sum by keyboard: units typed and converted, the address kept, values of a job", async ({
  page,
}) => {
  await page.goto("/sums");
  const length = page.getByLabel("Length, one way", { exact: true });
  await page.waitForLoadState("networkidle");
  await expect(length).toBeFocused();
  await page.keyboard.type("12 ft");
  await expect(page).toHaveURL(/length=12\+ft/);
  await expect(page.getByLabel("Length, one way, unit")).toHaveValue("ft");
  const lost = page.locator('[data-result="volts"]');
  const inFeet = await lost.textContent();
  await page.getByLabel("Length, one way, unit").selectOption("m");
  await expect(length).toHaveValue("3.6576");
  await expect(lost).toHaveText(inFeet ?? "");
  await page.getByLabel("Length, one way, unit").selectOption("ft");
  await expect(length).toHaveValue("12");
  await page.getByLabel("Current", { exact: true }).fill("plenty");
  await expect(page.getByText("Current: enter a number, such as 18 or 18 A.").first()).toBeVisible();
  await page.getByLabel("Current", { exact: true }).fill("20");
  await page.keyboard.press("ArrowUp");
  await expect(page.getByLabel("Current", { exact: true })).toHaveValue("21");
  await expect(page).toHaveURL(/amps=21/);
  await page.reload();
  await expect(page.getByLabel("Current", { exact: true })).toHaveValue("21");
  await accessible(page);
  // Any open job, because other tests close theirs.
  const open = page.getByLabel("Values from job").locator("option").nth(1);
  const job = (await open.getAttribute("value")) ?? "";
  await page.getByLabel("Values from job").selectOption(job);
  await page
    .getByRole("button", { name: /^wire W/ })
    .first()
    .click();
  await expect(page).toHaveURL(new RegExp(`job=${job}$`));
  await page.getByRole("link", { name: "Coils of a resistor pack" }).click();
  await page
    .getByRole("button", { name: /^motor / })
    .first()
    .click();
  await expect(page).toHaveURL(/supply=.*job=/);
  await accessible(page);
});

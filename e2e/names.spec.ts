// A whole job driven as a screen reader's user drives it: every control is found by its role and accessible name alone,
// and what happened is read from names, headings and status texts.
import { brokenVehicle } from "./brokenVehicle";
import { expect, type Page, test } from "./shop";
import { offeredLook, standing } from "./steps";

const press = (page: Page, name: string | RegExp): Promise<void> =>
  page.getByRole("button", { name, exact: typeof name === "string" }).click();
const follow = (page: Page, name: string): Promise<void> => page.getByRole("link", { name }).click();

/** Enters what the vehicle answers, in the first region beside the drawing, which the test itself names. */
async function enter(page: Page, answer: string | number | null): Promise<void> {
  const card = page.getByRole("complementary").getByRole("region").first();
  if (typeof answer === "string")
    await card.getByRole("button", { name: new RegExp(`^${answer}\\b`) }).click();
  else if (answer === null) await card.getByRole("button", { name: "OL (open)" }).click();
  else {
    await card.getByRole("textbox", { name: "Reads" }).fill(String(answer));
    await card.getByRole("button", { name: "Save" }).click();
  }
}

test("a whole job by accessible names alone", async ({ page }) => {
  const van = brokenVehicle("whimbrel-four-speed", "R1.link:open");
  await page.goto("/");
  await follow(page, "New job");
  await page.getByRole("combobox", { name: "Vehicle", exact: true }).selectOption({ label: "New vehicle" });
  await page.getByRole("textbox", { name: "Nickname or fleet number" }).fill("quay van 12");
  await page.getByRole("textbox", { name: "Make and model" }).fill("Harrow Whimbrel van");
  await page.getByRole("combobox", { name: "Blower circuit" }).selectOption("whimbrel-four-speed");
  await page.getByRole("textbox", { name: "Complaint" }).fill("Blows only on 4");
  await press(page, "Start job");
  await expect(page.getByRole("heading", { level: 1, name: /quay van 12 ?: Complaint$/ })).toBeVisible();

  for (const [speed, word] of [
    ["1", "nothing"],
    ["2", "nothing"],
    ["3", "nothing"],
    ["4", "normal"],
  ]) {
    await press(page, `${speed}: ${word}`);
    await expect(page.getByRole("button", { name: `${speed}: ${word}`, pressed: true })).toBeVisible();
  }
  await follow(page, "Continue to Probe");
  await expect(page.getByRole("heading", { level: 1, name: /quay van 12 ?: Probe$/ })).toBeVisible();

  for (let tests = 0; tests < 6 && (await page.getByText("Not certain yet.").isVisible()); tests++) {
    const before = await standing(page);
    await enter(page, van.answer(await offeredLook(page)));
    await expect.poll(() => standing(page)).toBe(before + 1);
  }
  await expect(page.getByText("Confirmed:")).toBeVisible();
  await follow(page, "See the verdict");
  await expect(page.getByRole("heading", { name: /^Resistor pack R1/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /with resistor pack R1 marked: / })).toBeVisible();
  await press(page, "Mark as fitted");

  await page.getByRole("heading", { name: "Before the panels go back" }).waitFor();
  const steps = page.getByRole("listitem").filter({ hasText: /expected / });
  for (const step of await steps.all()) {
    const expected = (await step.getByText(/^expected /).textContent())?.replace("expected ", "") ?? "";
    await step.getByRole("button", { name: new RegExp(`^.+: ${expected}$`) }).click();
    await expect(step.getByText(/as expected$/)).toBeVisible();
  }
  await follow(page, "Continue to Close");
  await page.getByRole("textbox", { name: "What was found and done" }).fill("Link open; new pack fitted.");
  await press(page, "Close the job");
  await expect(page.getByRole("article", { name: "Job card" })).toContainText("Link open; new pack fitted.");
});

test("each answer of a step of the check is named with its step", async ({ page }) => {
  await page.goto("/jobs/2/prove");
  for (const phase of ["Before the panels go back", "After the panels are back"]) {
    const names = await page
      .getByRole("region", { name: phase })
      .getByRole("listitem")
      .getByRole("button")
      .evaluateAll((all) => all.map((one) => one.textContent?.trim() ?? ""));
    expect(names.length).toBeGreaterThan(20);
    expect(new Set(names).size).toBe(names.length);
  }
});

import { readFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { parse } from "csv-parse/sync";
import ICAL from "ical.js";
import { expect, type Page, test } from "./shop";

const settled = (page: Page) => page.waitForLoadState("networkidle");

async function accessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
}

test("checked by clamp against this circuit's own band, then a failed check, which is not forgotten", async ({
  page,
}) => {
  await page.goto("/jobs/8/verdict");
  await page.getByRole("button", { name: /fitted|Fitted/ }).click();
  await page.getByRole("heading", { name: "Before the panels go back" }).waitFor();
  await page.getByText("clamp", { exact: true }).click();
  const top = page.locator('[data-step="up-4"]');
  await expect(top.getByText(/expected [\d.]+ A to [\d.]+ A at M1/)).toBeVisible();
  await top.getByRole("textbox").fill("some");
  await top.getByRole("button", { name: "Save" }).click();
  await expect(top.getByRole("alert")).toContainText("“some” cannot be stored here");
  await top.getByRole("textbox").fill("31,5");
  await top.getByRole("button", { name: "Save" }).click();
  await expect(top.getByText("31.5 A: higher than expected")).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Go back to probing with these results" }).click();
  await page.waitForURL(/probe/);
  await expect(page.getByText(/clamp round M1.*31\.5 A|31\.5 A/).first()).toBeVisible();
  await expect(page.locator("[data-failed-repair]")).toContainText("the repair did not hold");
  await page.goto("/jobs/8/trail");
  await expect(page.getByText(/^Fitted .*: the final check failed$/)).toBeVisible();
});

test("a past job: its card, its follow-up in a calendar, its history, its comeback", async ({ page }) => {
  await page.goto("/records?words=oiled");
  await settled(page);
  await expect(page.getByRole("status").first()).toHaveText(/1 job/);
  await page.locator("[data-job] a").first().click();
  const file = page.waitForEvent("download");
  await page.getByRole("link", { name: /Follow-up .* to calendar/ }).click();
  const calendar = ICAL.Component.fromString(readFileSync(await (await file).path(), "utf8"));
  const event = new ICAL.Event(calendar.getFirstSubcomponent("vevent") ?? undefined);
  expect(event.summary).toBe("Check again: Skerry Godwit hatchback, pharmacy hatchback");
  expect(event.startDate.isDate).toBe(true);
  const pdf = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save both pages as PDF" }).click();
  expect(
    readFileSync(await (await pdf).path())
      .subarray(0, 5)
      .toString(),
  ).toBe("%PDF-");
  await page.getByLabel(/Comeback/).fill("Squeals again.");
  await page.getByRole("button", { name: "Open a comeback job" }).click();
  await page.waitForURL(/complaint/);
  await page.goto("/records?outcome=came-back");
  await expect(page.locator("[data-job]").filter({ hasText: "pharmacy hatchback" })).toContainText(
    "came back",
  );
  await page
    .getByRole("link", { name: /oiled|26|2026/ })
    .first()
    .click();
  await page.getByRole("link", { name: "This vehicle's history" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
});

test("records are sorted, exported as CSV, checked and refused on import", async ({ page }) => {
  await page.goto("/records?outcome=held&order=money&down=yes");
  await settled(page);
  await expect(page.getByRole("columnheader", { name: /Billed/ })).toHaveAttribute("aria-sort", "descending");
  await page.getByRole("link", { name: /^Billed/ }).click();
  await expect(page.getByRole("columnheader", { name: /Billed/ })).toHaveAttribute("aria-sort", "ascending");
  await accessible(page);
  const file = page.waitForEvent("download");
  await page.getByRole("link", { name: "Export closed jobs as CSV" }).click();
  const text = readFileSync(await (await file).path(), "utf8");
  const rows: string[][] = parse(text);
  expect(rows.length).toBeGreaterThan(13);
  await page.getByRole("link", { name: "Import records" }).click();
  await settled(page);
  await page.getByLabel("Or paste its text").fill(text);
  await page.getByRole("button", { name: "Check the text" }).click();
  await expect(
    page.getByText(/Checked, nothing saved yet\. 0 jobs can be imported, \d+ are already here/),
  ).toBeVisible();
  await page.getByLabel("File to import").setInputFiles({
    name: "records.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(text.replaceAll(/^demo-/gm, "elsewhere-")),
  });
  await page.getByRole("button", { name: "Check the file" }).click();
  await expect(page.getByText(/nothing saved yet\. [1-9]\d* jobs can be imported/)).toBeVisible();
  await page.getByLabel("Or paste its text").fill(text.replace("not-found", "perhaps"));
  await page.getByRole("button", { name: "Import the text" }).click();
  await expect(page.getByText(/row \d+, cause: expected "found"/)).toBeVisible();
});

test("what the shop has learned is shown, excluded for one job, and switched off", async ({ page }) => {
  await page.goto("/records/learnt?circuit=whimbrel-four-speed");
  await settled(page);
  const link = page.getByRole("row").filter({ hasText: /^thermal link open/ });
  const before = await link.textContent();
  await accessible(page);
  const lesson = page.locator("[data-lesson]").filter({ hasText: "thermal link open" }).first();
  await lesson.getByRole("button", { name: /Stop counting/ }).click();
  await expect(lesson).toContainText("not counted");
  expect(await link.textContent()).not.toBe(before);
  await lesson.getByRole("button", { name: /^Count job/ }).click();
  await expect(lesson).not.toContainText("not counted");
  await page.getByRole("button", { name: "Turn learning off" }).click();
  await expect(page.getByText(/Learning is off/)).toBeVisible();
  await page.getByRole("button", { name: "Turn learning on" }).click();
  await expect(page.getByRole("button", { name: "Turn learning off" })).toBeVisible();
});

test("statistics answer their questions in words too", async ({ page }) => {
  await page.goto("/records/figures");
  await settled(page);
  await expect(page.getByRole("img", { name: /some speeds dead: thermal link/ })).toBeAttached();
  await expect(page.getByText(/^\d+ of \d+ verdicts held/)).toBeVisible();
  await expect(page.getByText("root cause found", { exact: true })).toBeVisible();
  await accessible(page);
});

test("deleted and restored; backed up, inspected, restored; the whole shop exported and imported", async ({
  page,
}) => {
  await page.goto("/jobs/17/close");
  await page.getByRole("button", { name: "Delete the job" }).click();
  await expect(page.getByText(/Job 17 is deleted/)).toBeVisible();
  await page.getByRole("button", { name: "Restore it" }).click();
  await expect(page.getByRole("button", { name: "Delete the job" })).toBeVisible();
  await page.goto("/records/keeping");
  await settled(page);
  await page.getByRole("button", { name: "Back up now" }).click();
  const done = await page.getByText(/^Backed up: /).textContent();
  const backup = page.locator(`[data-backup="${/airway-\S+\.sqlite/.exec(done ?? "")?.[0]}"]`);
  await expect
    .poll(async () => {
      await page.reload();
      return backup.textContent();
    })
    .toContain(", verified");
  await backup.getByRole("button", { name: "Check it" }).click();
  await expect(backup.getByText(/Checked, nothing changed. It is sound/)).toBeVisible();
  await accessible(page);
  await backup.getByLabel(/type the name of the shop/).fill("Saltmarsh Bay Garage");
  await backup.getByRole("button", { name: "Restore" }).click();
  await expect(page.getByText(/Restored/)).toBeVisible();
  const file = page.waitForEvent("download");
  await page.getByRole("link", { name: "Export shop" }).click();
  const bundle = await (await file).path();
  await page.getByLabel("Import a bundle or a backup file").setInputFiles({
    name: "notes.zip",
    mimeType: "application/zip",
    buffer: Buffer.from("these are no notes"),
  });
  await page.getByRole("button", { name: "Check the file" }).click();
  await expect(page.getByRole("alert")).toContainText("This is not a zip file");
  await page.getByLabel("Import a bundle or a backup file").setInputFiles({
    name: "airway-shop.zip",
    mimeType: "application/zip",
    buffer: readFileSync(bundle),
  });
  await page.getByRole("button", { name: "Check the file" }).click();
  await expect(page.getByText(/It holds \d+ jobs and \d+ readings/)).toBeVisible();
  await page.getByLabel(/type the name of the shop/).fill("Saltmarsh Bay Garage");
  await page.getByRole("button", { name: "Replace the shop with it" }).click();
  await expect(page.getByText(/Restored/)).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Open jobs" })).toBeVisible();
});

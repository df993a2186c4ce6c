import type { Test } from "../core/predict/reading";
import type { BrokenVehicle } from "./brokenVehicle";
import { expect, type Page } from "./shop";

/** The suggested test, as the page would send it back. */
export async function offeredLook(page: Page): Promise<Test> {
  return JSON.parse(
    await page.locator('[aria-labelledby="next-look"] input[name="look"]').first().inputValue(),
  ) as Test;
}

/** Number of active readings on the page; it includes only stored ones. */
export async function standing(page: Page): Promise<number> {
  return Number(await page.getByTestId("standing").textContent());
}

/** Counts the keys pressed on a page from now on. */
export async function keysPressed(page: Page): Promise<() => Promise<number>> {
  const count = await page.evaluateHandle(() => {
    const pressed = { keys: 0 };
    window.addEventListener("keydown", () => {
      pressed.keys += 1;
    });
    return pressed;
  });
  return () => count.evaluate(({ keys }) => keys);
}

/** Waits until no entry of the complaint is still on its way; else the next page would store it among its own. */
export async function complaintStored(page: Page): Promise<void> {
  // An entry is in the browser's storage from its tap until the server has stored it.
  await page.waitForFunction(() =>
    Object.keys(localStorage).every((key) => !key.startsWith("airway:waiting:")),
  );
}

/** Enters in the complaint that only the top of four speeds blows. */
export async function hearTopOnly(page: Page): Promise<void> {
  for (const [setting, word] of Object.entries({
    "1": "nothing",
    "2": "nothing",
    "3": "nothing",
    "4": "normal",
  })) {
    const cell = page.getByRole("button", { name: `${setting}: ${word}` });
    await cell.click();
    await expect(cell).toHaveAttribute("aria-pressed", "true");
  }
  await complaintStored(page);
}

/** Opens a job of its own on a van that only blows on its top speed, and goes to its probe page. */
export async function probeOwnVan(page: Page): Promise<void> {
  await page.goto("/jobs/new");
  await page
    .getByLabel("Vehicle", { exact: true })
    .selectOption({ label: "Harrow Whimbrel van, ferry crew van 5" });
  await page.getByRole("button", { name: "Start job" }).click();
  await hearTopOnly(page);
  await page.getByRole("link", { name: "Continue to Probe" }).click();
  await page.waitForURL(/\/probe$/);
  await page.waitForLoadState("networkidle");
}

/** Enters an answer to the suggested test. */
export type Enter = (page: Page, answer: string | number | null) => Promise<void>;

/** Enters an answer by pointer: the word's button, or the figure and Save. */
export const byPointer: Enter = async (page, answer) => {
  if (typeof answer === "string") await page.locator(`[data-choice="${answer}"]`).click();
  else if (answer === null) await page.getByRole("button", { name: "OL (open)" }).click();
  else {
    await page.getByRole("textbox", { name: "Reads" }).fill(String(answer));
    await page.getByRole("button", { name: "Save", exact: true }).click();
  }
};

/** Enters an answer by touch alone: the word's button, or the range that contains the figure or is next to it. */
export const byTouch: Enter = async (page, answer) => {
  if (typeof answer === "string") await page.locator(`[data-choice="${answer}"]`).tap();
  else if (answer === null) await page.getByRole("button", { name: /OL/ }).first().tap();
  else {
    const ranges = page.locator('[data-about]:not([data-about=""])');
    const middles = await ranges.evaluateAll((all) =>
      all.map((one) => Number(one.getAttribute("data-about"))),
    );
    const far = middles.map((middle) => Math.abs(middle - answer));
    const nearest = ranges.nth(far.indexOf(Math.min(...far)));
    // A wide range opens into the narrow ones first.
    if (!(await nearest.isVisible())) await nearest.locator("xpath=ancestor::details[1]/summary").tap();
    await nearest.tap();
  }
};

const lightKeys: Record<string, string> = { bright: "b", dim: "d", dark: "k" };

/** Enters an answer by keys alone. */
export const byKeys: Enter = async (page, answer) => {
  if (typeof answer === "string") {
    const index = await page.locator(`[data-choice="${answer}"]`).evaluate((button) => {
      const all = [...document.querySelectorAll("[data-choice]")];
      return all.indexOf(button);
    });
    await page.keyboard.press(lightKeys[answer] ?? String(index + 1));
  } else if (answer === null) {
    await page.getByRole("textbox", { name: "Reads" }).focus();
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
  } else {
    const text = String(answer);
    if (text.startsWith("-")) {
      await page.getByRole("textbox", { name: "Reads" }).focus();
      await page.keyboard.type(text);
    } else await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  }
};

/** Answers the suggested test by keys alone: twelve volts or the like, or the first of its words. */
export async function answerByKeys(page: Page): Promise<void> {
  // Keys work once the page's scripts run.
  await page.waitForLoadState("networkidle");
  const { test } = await offeredLook(page);
  if (["volts", "amps", "ohms"].includes(test)) return byKeys(page, 12.1);
  const first = await page.locator("[data-choice]").first().getAttribute("data-choice");
  return byKeys(page, first ?? "");
}

/** Answers what the page asks until it no longer says "Not yet"; returns the tests it took. */
export async function probeToTheEnd(
  page: Page,
  vehicle: BrokenVehicle,
  enter: Enter,
  most: number,
): Promise<Test[]> {
  const taken: Test[] = [];
  while (taken.length < most && (await page.getByText("Not certain yet.").isVisible())) {
    const look = await offeredLook(page);
    const before = await standing(page);
    await enter(page, vehicle.answer(look));
    await expect.poll(() => standing(page)).toBe(before + 1);
    taken.push(look);
  }
  return taken;
}

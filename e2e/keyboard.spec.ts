import { brokenVehicle } from "./brokenVehicle";
import { expect, type Page, test } from "./shop";
import { byKeys, keysPressed, probeToTheEnd } from "./steps";

/** Presses Tab until the element with this name has the focus. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 120; presses++) {
    await page.keyboard.press("Tab");
    const focused = await page.evaluate(() => {
      const at = document.activeElement as HTMLElement | null;
      return at?.getAttribute("aria-label") ?? at?.textContent ?? "";
    });
    if (name.test(focused.trim())) return;
  }
  throw new Error(`no focus on ${name}`);
}

test("the whole story by keyboard alone", async ({ page }) => {
  const van = brokenVehicle("whimbrel-four-speed", "R1.link:open");
  await page.goto("/");
  await tabTo(page, /^Harrow Whimbrel van, ferry crew van 3$/);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  const pressed = await keysPressed(page);
  const looks = await probeToTheEnd(page, van, byKeys, 6);
  expect(looks.length).toBeLessThanOrEqual(4);
  await expect(page.getByText("Confirmed:")).toBeVisible();
  expect(await pressed()).toBeLessThanOrEqual(15);

  await tabTo(page, /^See the verdict$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^Resistor pack R1/ })).toBeVisible();
  await tabTo(page, /^Mark as fitted$/);
  await page.keyboard.press("Enter");
  await page.getByRole("heading", { name: "Before the panels go back" }).waitFor();
  for (const line of await page.locator("[data-step]").all()) {
    const expected = (await line.getByText(/^expected /).textContent())?.replace("expected ", "") ?? "";
    await tabTo(page, new RegExp(`: ${expected}$`));
    const focusedStep = await page.evaluate(() =>
      document.activeElement?.closest("[data-step]")?.getAttribute("data-step"),
    );
    expect(focusedStep).toBe(await line.getAttribute("data-step"));
    await page.keyboard.press("Enter");
    await expect(line.getByText(/as expected$/)).toBeVisible();
    const last = (await line.getByRole("button").last().textContent()) ?? "";
    if (!last.endsWith(`: ${expected}`)) await tabTo(page, new RegExp(`^${last}$`));
  }
  await tabTo(page, /^Continue to Close$/);
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("What was found and done")).toHaveValue("Resistor pack R1 renewed.");
  await tabTo(page, /^Close the job$/);
  await page.keyboard.press("Enter");
  await expect(page.getByText(/closed \d/)).toBeVisible();
});

test("keys delete, change the speed, show another test and can be switched off", async ({ page }) => {
  await page.goto("/jobs/5/probe");
  // Keys work once the page's scripts run, which on a busy machine is later than its text.
  await page.waitForLoadState("networkidle");
  const standing = page.getByTestId("standing");
  await expect(standing).toHaveText("6");
  await page.keyboard.press("u");
  await expect(standing).toHaveText("5");
  await page.getByRole("button", { name: "Restore reading 6" }).click();
  await expect(standing).toHaveText("6");
  const first = await page.locator('input[name="look"]').first().inputValue();
  await page.keyboard.press("n");
  await expect(page.locator('input[name="look"]').first()).not.toHaveValue(first);
  await page.getByRole("radio", { name: /^1/ }).click();
  await page.keyboard.press("]");
  await expect(page.getByRole("radio", { name: /^2/ })).toBeChecked();
  await page.keyboard.press("?");
  await page.getByRole("button", { name: "Turn letter keys off" }).click();
  await expect(page.getByRole("button", { name: "Turn letter keys on" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.keyboard.press("u");
  await page.keyboard.press("b");
  await page.waitForTimeout(400);
  await expect(standing).toHaveText("6");
});

test("the figure of the next test is at most five Tabs away from the top of the page", async ({ page }) => {
  await page.goto("/jobs/5/probe");
  await page.waitForLoadState("networkidle");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "Skip to the next test" })).toBeFocused();
  await page.keyboard.press("Enter");
  const figure = page.getByLabel("Reads", { exact: true });
  let tabs = 2;
  while (tabs < 5 && !(await figure.evaluate((own) => own === document.activeElement))) {
    await page.keyboard.press("Tab");
    tabs += 1;
  }
  await expect(figure).toBeFocused();
  expect(tabs).toBeLessThanOrEqual(5);
});

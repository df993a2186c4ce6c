import { brokenVehicle } from "./brokenVehicle";
import { expect, test } from "./shop";
import { byPointer, probeToTheEnd } from "./steps";

const words = { none: "nothing", weak: "weak", normal: "normal", strong: "too strong" } as const;

test("from complaint to proven repair: a van that blows only on its top speed", async ({ page }) => {
  const van = brokenVehicle("whimbrel-four-speed", "R1.link:open");
  await page.goto("/");
  await page.getByRole("link", { name: "New job" }).click();
  await page.getByLabel("Vehicle", { exact: true }).selectOption({ label: "New vehicle" });
  await page.getByLabel("Nickname or fleet number").fill("quay van 9");
  await page.getByLabel("Make and model").fill("Harrow Whimbrel van");
  await page.getByLabel("Blower circuit").selectOption("whimbrel-four-speed");
  await page.getByLabel("Complaint").fill("Blows only on 4");
  await page.getByRole("button", { name: "Start job" }).click();

  await expect(page.getByRole("heading", { level: 1 })).toHaveText(
    "Harrow Whimbrel van, quay van 9: Complaint",
  );
  for (const setting of ["1", "2", "3", "4"]) {
    const cell = page.getByRole("button", { name: `${setting}: ${words[van.airflow(setting)]}` });
    await cell.click();
    await expect(cell).toHaveAttribute("aria-pressed", "true");
  }
  await page.getByRole("link", { name: "Continue to Probe" }).click();

  await expect(page.getByText("Not certain yet.")).toBeVisible();
  await expect(page.locator("[data-suspect]").first()).toContainText("resistor pack R1");
  const address = page.url();
  const looks = await probeToTheEnd(page, van, byPointer, 6);
  expect(page.url()).toBe(address);
  expect(looks.length).toBeGreaterThanOrEqual(1);
  expect(looks.length).toBeLessThanOrEqual(4);
  await expect(page.getByText("Confirmed:")).toBeVisible();

  await page.getByRole("link", { name: "See the verdict" }).click();
  await expect(
    page.getByRole("heading", { name: /^Resistor pack R1: thermal link open, (over )?\d+ %/ }),
  ).toBeVisible();
  await expect(page.getByText(/Speeds 1, 2 and 3 are dead and all need .*R1\.e3.*R1\.link/)).toBeVisible();
  await expect(
    page.getByText(/^Measured by itself, the resistor pack R1 has the wrong resistance/),
  ).toBeVisible();
  await expect(page.getByText(/^For the customer: A thermal link .* prove/)).toBeVisible();
  await page.getByRole("button", { name: "Mark as fitted" }).click();

  await page.getByRole("heading", { name: "Before the panels go back" }).waitFor();
  for (const line of await page.locator("[data-step]").all()) {
    const expected = (await line.getByText(/^expected /).textContent())?.replace("expected ", "") ?? "";
    await line.getByRole("button", { name: new RegExp(`^.+: ${expected}$`) }).click();
    await expect(line.getByText(/as expected$/)).toBeVisible();
  }
  await expect(page.getByText("Every step is as expected: the repair is proven.")).toBeVisible();
  await page.getByRole("link", { name: "Continue to Close" }).click();

  // Nothing is chosen beforehand; the readings prove the link.
  await expect(page.getByLabel("resistor pack R1 renewed")).toHaveValue("");
  await page
    .getByLabel("resistor pack R1 renewed")
    .selectOption({ label: "resistor pack R1: thermal link open (fits the proof)" });
  await page.getByLabel("What was found and done").fill("Thermal link open; new pack; motor turns free.");
  await page.getByRole("button", { name: "Close the job" }).click();
  const card = page.getByRole("article", { name: "Job card" });
  await expect(card).toContainText("Thermal link open; new pack; motor turns free.");
  await expect(card.getByRole("row")).toHaveCount(20);
  await expect(page.getByRole("article", { name: "For the customer" })).toContainText(
    "A thermal link inside the fan's resistor had opened",
  );
  await expect(page.getByRole("button", { name: "Print the card" })).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print the card" })).toBeHidden();
  await expect(card).toBeVisible();
});

test("a failed repair goes back to probing with what it showed", async ({ page }) => {
  await page.goto("/jobs/2/prove");
  const line = page.locator('[data-step="up-2"]');
  await line.getByRole("button", { name: "nothing" }).click();
  await expect(line.getByText(/lower than expected$/)).toBeVisible();
  await page.getByRole("button", { name: "Go back to probing with these results" }).click();
  await expect(page.getByText(/^\d+\. air on speed 2: nothing$/)).toBeVisible();
});

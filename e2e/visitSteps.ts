// Visits with more than one finding, to the bill and the records (common practice, no source).
import { type BrokenVehicle, brokenVehicle } from "./brokenVehicle";
import { expect, type Page } from "./shop";
import { complaintStored, type Enter, probeToTheEnd, standing } from "./steps";
import { goTo, type Press, proveIt, row, startOn } from "./workSteps";

/** Takes the recommended offer as an approved estimate. */
async function approve(page: Page, press: Press): Promise<void> {
  await goTo(page, "estimate");
  await page.locator('[data-offer="part-only"]').getByRole("button", { name: "Estimate this" }).click();
  await expect(page.locator('[data-version="1"]')).toBeVisible();
  await press(page, "Approved");
  await expect(
    page
      .locator('[data-version="1"]')
      .getByText(/approved/)
      .first(),
  ).toBeVisible();
}

/** Saves the bill as the approved estimate has it. */
async function bill(page: Page, press: Press): Promise<void> {
  await goTo(page, "estimate");
  await page.getByText(/^The bill/).click();
  await press(page, "Save the bill");
  await expect(page.getByRole("heading", { name: /against approved estimate/ })).toBeVisible();
}

/** Says of every line what the readings prove, and of a part put back that it was good; closes. */
async function close(page: Page, press: Press): Promise<void> {
  const findings = page.locator('select[name^="finding-"]');
  await expect(findings).toHaveCount(2);
  for (const finding of await findings.all()) {
    await expect(finding).toHaveValue("");
    const fitting = finding.locator("option", { hasText: "(fits the proof)" });
    const isProved = (await fitting.count()) > 0;
    await finding.selectOption(
      isProved ? { label: (await fitting.first().textContent()) ?? "" } : { value: "sound" },
    );
  }
  await press(page, "Close the job");
  await page.getByRole("article", { name: "Job card" }).waitFor();
}

/** Finds the job in the records by these filters, and in its vehicle's history. */
async function found(page: Page, queries: readonly string[], history: RegExp): Promise<void> {
  const [, id] = /\/jobs\/(\d+)/.exec(page.url()) ?? [];
  for (const query of queries) {
    await page.goto(`/records?${query}`);
    await expect(page.locator(`[data-job="${id}"]`)).toBeVisible();
  }
  await page.goto(`/jobs/${id}/close`);
  await page.getByRole("link", { name: "This vehicle's history" }).click();
  await page.waitForURL(/\/records\/vehicle\//);
  await expect(page.locator("main")).toContainText(history);
}

/** A tight motor that burnt out its pack: both renewed in one visit, the way in shared, nothing left to advise. */
export async function motorAndPack(page: Page, enter: Enter, press: Press): Promise<void> {
  const vehicle = brokenVehicle("whimbrel-four-speed", "M1:tight@1.6+R1.link:open");
  await startOn(page, vehicle, press);
  await complaintStored(page);
  await goTo(page, "probe");
  await probeToTheEnd(page, vehicle, enter, 12);
  await goTo(page, "verdict");
  await expect(
    page.getByRole("heading", { level: 2, name: /^Blower motor M1 and resistor pack R1/ }),
  ).toBeVisible();
  await expect(page.getByText(/Root cause: blower motor M1/)).toBeVisible();
  await page.getByRole("link", { name: "Plan all the work" }).click();
  await page.waitForURL(/\/work$/);
  await page.waitForLoadState("networkidle");
  await press(page, "Add all 2");
  const lines = page.locator("[data-work]");
  await expect(lines).toHaveCount(2);
  await expect(lines.first()).toContainText("blower motor M1: renew");
  await expect(page.getByText(/planned in this round\. About .* if done together/)).toBeVisible();
  await approve(page, press);
  // The two parts are behind the same panel, so it comes out once.
  await goTo(page, "fit");
  await expect(row(page, "in", "lower-panel")).toHaveCount(1);
  for (const step of ["pack-screws", "motor-screws"]) await expect(row(page, "in", step)).toBeVisible();
  await proveIt(page, press);
  await close(page, press);
  await bill(page, press);
  await goTo(page, "close");
  const card = page.getByRole("article", { name: "Job card" });
  await expect(card).toContainText("Speeds 1, 2 and 3: nothing. Speed 4: weak.");
  await expect(card).toContainText("blower motor M1 renewed");
  await expect(card).toContainText("resistor pack R1 renewed");
  await expect(card.getByText("tight, draws too much, then thermal link open")).toHaveCount(1);
  await expect(card.getByText("Advised")).toHaveCount(0);
  const customer = page.getByRole("article", { name: "For the customer" });
  await expect(customer).toContainText("had become stiff");
  await expect(customer).toContainText("A thermal link inside the fan's resistor had opened");
  await expect(customer).toContainText("Blower motor renewed; resistor pack renewed.");
  await expect(customer).toContainText(/Bill \d+: /);
  await expect(customer).not.toContainText(/M1|R1/);
  await found(page, ["words=M1", "words=R1", "part=motor", "part=resistor"], /motor.*pack/s);
}

/**
 * The technician's hunch was the pack: it is measured on the bench, proved good and put back. A wire is mended, and the
 * battery's terminal breaks when the negative comes off.
 */
export async function packPutBack(page: Page, enter: Enter, press: Press): Promise<void> {
  const vehicle: BrokenVehicle = brokenVehicle("whimbrel-four-speed", "W14:open");
  await startOn(page, vehicle, press);
  await complaintStored(page);
  await goTo(page, "probe");
  const before = await standing(page);
  await page.getByText("Enter another test").click();
  await page.locator('select[name="test"]').selectOption("ohms");
  await page.locator('select[name="unplugged"]').selectOption("X5");
  await page.locator('select[name="first"]').selectOption("R1.T1");
  await page.locator('select[name="second"]').selectOption("R1.T4");
  await page.locator('input[name="result"]').fill("2,2");
  await press(page, "Save reading");
  await expect.poll(() => standing(page)).toBe(before + 1);
  await probeToTheEnd(page, vehicle, enter, 14);
  await goTo(page, "verdict");
  await expect(page.getByRole("heading", { level: 2, name: /^Wire W14/ })).toBeVisible();
  await goTo(page, "work");
  await press(page, "Add to the list: wire W14");
  await expect(page.locator('[data-work="W14"]')).toBeVisible();
  await addLine(page, press, "resistor pack R1", "prove good and put back");
  await addLine(page, press, "battery terminal", "renew", "12,50");
  await expect(page.locator("[data-work]")).toHaveCount(3);
  // The wire is cut and joined, so the negative comes off first.
  await goTo(page, "fit");
  await page.getByRole("tab", { name: /^Refitting/ }).click();
  await expect(row(page, "back", "fit-W14-mend-wire")).toContainText("Cut the damage out and join the wire");
  await approve(page, press);
  // The pack that was proved good is not offered anew.
  await expect(page.locator("[data-offer]").filter({ hasText: /R1.*R1/s })).toHaveCount(0);
  await proveIt(page, press);
  await close(page, press);
  await bill(page, press);
  await expect(page.locator('[data-version="2"]')).toContainText("battery terminal");
  await goTo(page, "close");
  const card = page.getByRole("article", { name: "Job card" });
  for (const words of [
    "wire W14 repaired",
    "resistor pack R1 proved good and put back",
    "battery terminal renewed",
    "resistor pack R1: good, not the cause",
  ])
    await expect(card).toContainText(words);
  await expect(card.getByText("Advised")).toHaveCount(0);
  await found(page, ["words=terminal", "words=W14", "part=wire"], /terminal/);
}

/** Adds a line of one's own to the work list. */
async function addLine(page: Page, press: Press, what: string, work: string, price = ""): Promise<void> {
  const lines = page.locator("[data-work]");
  const before = await lines.count();
  await page.getByText("Add a line", { exact: true }).click();
  const form = page.locator("details", { has: page.getByText("Add a line", { exact: true }) });
  const known = form.getByRole("combobox", { name: "What", exact: true });
  if ((await known.locator("option", { hasText: what }).count()) > 0)
    await known.selectOption({ label: what });
  else await form.getByLabel("Its name, if it is something else").fill(what);
  await form.getByRole("combobox", { name: "Work", exact: true }).selectOption({ label: work });
  if (price) await form.getByLabel(/^Price/).fill(price);
  await press(page, "Add line");
  await expect(lines).toHaveCount(before + 1);
}

// What follows the verdict on real jobs (common practice, no source): several pieces of work, and more than one round.
import { type BrokenVehicle, brokenVehicle } from "./brokenVehicle";
import { expect, type Page } from "./shop";
import { complaintStored, type Enter, probeToTheEnd } from "./steps";

const words = { none: "nothing", weak: "weak", normal: "normal", strong: "too strong" } as const;

/** How the technician presses a button: by pointer or by touch. */
export type Press = (page: Page, name: string) => Promise<void>;

/** A van with a resistor pack on the ground side. */
const van = "Harrow Whimbrel van, ferry crew van 5";

/** Opens a job on a vehicle of the demo, and says what each speed does. */
export async function startOn(
  page: Page,
  vehicle: BrokenVehicle,
  press: Press,
  label: string = van,
): Promise<void> {
  await page.goto("/jobs/new");
  await page.getByLabel("Vehicle", { exact: true }).selectOption({ label });
  await press(page, "Start job");
  await page.waitForURL(/\/jobs\/\d+/);
  for (const setting of ["1", "2", "3", "4"]) {
    const name = `${setting}: ${words[vehicle.airflow(setting)]}`;
    await press(page, name);
    await expect(page.getByRole("button", { name, exact: true })).toHaveAttribute("aria-pressed", "true");
  }
}

/** Takes the suggested tests until the verdict is certain, and goes to it. */
export async function probe(page: Page, vehicle: BrokenVehicle, enter: Enter): Promise<void> {
  await complaintStored(page);
  await page.goto(page.url().replace(/\/[a-z]+$/, "/probe"));
  await page.waitForLoadState("networkidle");
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  await probeToTheEnd(page, vehicle, enter, 12);
  await page.goto(page.url().replace(/\/[a-z]+$/, "/verdict"));
}

/** Takes the final check: what the vehicle does on the way up, and what is expected elsewhere. */
export async function check(page: Page, vehicle: BrokenVehicle): Promise<void> {
  await page.getByRole("heading", { name: "Before the panels go back" }).waitFor();
  for (const line of await page.locator("[data-step]").all()) {
    const expected = (await line.getByText(/^expected /).textContent())?.replace("expected ", "") ?? "";
    const setting = /^up-(\d)$/.exec((await line.getAttribute("data-step")) ?? "")?.[1];
    const found = setting === undefined ? expected : words[vehicle.airflow(setting)];
    await line.getByRole("button", { name: new RegExp(`^.+: ${found}$`) }).click();
    await expect(line.getByText(found === expected ? /as expected$/ : /lower than expected$/)).toBeVisible();
    // One failed step is enough to go back.
    if (found !== expected) return;
  }
}

/** A vehicle with nothing wrong. */
export const sound: BrokenVehicle = { airflow: () => "normal", answer: () => null };

/** A motor renewed, the check fails on one speed, then a melted plug spliced; returns to the closed card. */
export async function motorThenPlug(page: Page, enter: Enter, press: Press): Promise<void> {
  const first = brokenVehicle("whimbrel-four-speed", "M1:open");
  const plug = brokenVehicle("whimbrel-four-speed", "X5:1:open");
  const second: BrokenVehicle = {
    ...plug,
    answer: (test) => (test.test === "look" && test.at === "X5" ? "melted" : plug.answer(test)),
  };
  await startOn(page, first, press);
  await probe(page, first, enter);
  await expect(page.getByRole("heading", { level: 2, name: /^Blower motor M1/ })).toBeVisible();
  await press(page, "Mark as fitted");
  await page.waitForURL(/\/prove$/);
  await check(page, second);
  await press(page, "Go back to probing with these results");
  await page.waitForURL(/\/probe$/);
  await probe(page, second, enter);
  await expect(page.getByRole("heading", { level: 2, name: /resistor plug X5/i })).toBeVisible();
  await page.getByRole("link", { name: "Plan all the work" }).click();
  await page.waitForURL(/\/work$/);
  await expect(page.getByText("Round 1: done, and the final check failed")).toBeVisible();
  await expect(page.getByText("blower motor M1 renewed")).toBeVisible();
  await press(page, "Add to the list: resistor plug X5");
  await expect(page.getByText("resistor plug X5: splice in a new plug")).toBeVisible();
  await press(page, "All work is done: go to the final check");
  await page.waitForURL(/\/prove$/);
  await check(page, sound);
  await expect(page.getByText("Every step is as expected: the repair is proven.")).toBeVisible();
  await page.getByRole("link", { name: "Continue to Close" }).click();
  const findings = page.locator('select[name^="finding-"]');
  await expect(findings).toHaveCount(2);
  for (const finding of await findings.all()) {
    await expect(finding).toHaveValue("");
    const proved = await finding.locator("option", { hasText: "(fits the proof)" }).first().textContent();
    await finding.selectOption({ label: proved ?? "" });
  }
  await press(page, "Close the job");
  const card = page.getByRole("article", { name: "Job card" });
  await expect(card).toContainText("Round 1, the final check failed");
  await expect(card).toContainText("blower motor M1 renewed");
  await expect(card).toContainText("resistor plug X5: new plug spliced in");
  await expect(card.getByText("Advised")).toHaveCount(0);
  const customer = page.getByRole("article", { name: "For the customer" });
  await expect(customer).toContainText("The check afterwards showed that there was more.");
  await expect(customer).toContainText(
    "The fan's motor had failed. A contact in a plug of the fan's wiring was bad.",
  );
}

/** A bearing oiled as a stopgap with a follow-up, and a broken battery terminal renewed on the way. */
export async function oiledBearing(page: Page, enter: Enter, press: Press): Promise<void> {
  const quiet = brokenVehicle("whimbrel-four-speed", "M1:bearing-dry");
  const vehicle: BrokenVehicle = {
    airflow: () => "normal",
    answer: (test) =>
      test.test === "listen" ? "squeal" : test.test === "spin" ? "stiff" : quiet.answer(test),
  };
  await startOn(page, vehicle, press);
  await press(page, "Noise while running: squeal");
  await probe(page, vehicle, enter);
  await expect(page.getByRole("heading", { level: 2, name: /^Blower motor M1/ })).toBeVisible();
  await page.getByRole("link", { name: "Plan all the work" }).click();
  await page.waitForURL(/\/work$/);
  const addLine = async (fill: () => Promise<void>): Promise<void> => {
    await page.getByText("Add a line", { exact: true }).click();
    await fill();
    await press(page, "Add line");
    await page.waitForLoadState("networkidle");
  };
  const form = page.locator("details", { has: page.getByText("Add a line", { exact: true }) });
  await addLine(async () => {
    await form
      .getByRole("combobox", { name: "What", exact: true })
      .selectOption({ label: "blower motor M1" });
    await form
      .getByRole("combobox", { name: "Work", exact: true })
      .selectOption({ label: "oil (temporary)" });
    await form.getByLabel("Minutes taken").fill("a while");
  });
  // A figure that cannot be read says so, and the form stays open.
  await expect(page.getByRole("alert")).toContainText("Minutes taken: is not a figure such as 12.5");
  await form.getByLabel("Minutes taken").fill("12,5");
  await press(page, "Add line");
  await expect(page.locator('[data-work="M1"]')).toContainText("blower motor M1: oil (temporary)");
  await addLine(async () => {
    await form.getByLabel("Its name, if it is something else").fill("battery terminal");
  });
  await expect(page.locator('[data-work="battery terminal"]')).toBeVisible();
  await press(page, "All work is done: go to the final check");
  await page.waitForURL(/\/prove$/);
  for (const phase of ["before the panels go back", "after the panels are back"]) {
    const rest = page.getByRole("button", { name: `Mark the rest as expected: ${phase}` });
    await press(page, `Mark the rest as expected: ${phase}`);
    await expect(rest).toHaveCount(0);
  }
  await page.getByRole("link", { name: "Continue to Close" }).click();
  await expect(page.getByText("nothing is learned from a temporary repair")).toBeVisible();
  const finding = page.locator('select[name^="finding-"]');
  const dry = await finding.locator("option", { hasText: "dry bearing" }).textContent();
  await finding.selectOption({ label: dry ?? "" });
  await page.getByLabel(/^Temporary repair/).fill("Bearing oiled");
  await page.getByLabel("Check again on").fill("2027-03-01");
  await press(page, "Close the job");
  const card = page.getByRole("article", { name: "Job card" });
  await expect(card).toContainText("blower motor M1 oiled, a temporary repair");
  await expect(card).toContainText("battery terminal renewed");
  await expect(card).toContainText("check again 1 Mar 2027");
  const customer = page.getByRole("article", { name: "For the customer" });
  await expect(customer).toContainText("The bearing of the fan's motor had run dry.");
  await expect(customer).toContainText("Please come back by 1 Mar 2027.");
}

const jobPage = (page: Page, to: string): string => page.url().replace(/(\/jobs\/\d+).*$/, `$1/${to}`);

/** Goes to a page of the job and waits for its scripts. */
export async function goTo(page: Page, to: string): Promise<void> {
  await page.goto(jobPage(page, to));
  await page.waitForLoadState("networkidle");
}

/** A step of the repair. */
export const row = (page: Page, way: "in" | "back", step: string) =>
  page.locator(`[data-way="${way}"] [data-step="${step}"]`);

/** Marks the work as done, takes the final check on a sound vehicle, and goes to Close. */
export async function proveIt(page: Page, press: Press): Promise<void> {
  await goTo(page, "work");
  await press(page, "All work is done: go to the final check");
  await page.waitForURL(/\/prove$/);
  await check(page, sound);
  await expect(page.getByText("Every step is as expected: the repair is proven.")).toBeVisible();
  await page.getByRole("link", { name: "Continue to Close" }).click();
  await page.waitForURL(/\/close$/);
}

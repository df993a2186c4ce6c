import { expect, type Page } from "./shop";

interface Played {
  /** A vehicle of the demo, on which a job of its own is opened. */
  readonly vehicle: string;
  readonly part: string;
  /** The button of a route, if not the quickest. */
  readonly way?: RegExp;
  /** Steps that must be among those played. */
  readonly through: readonly string[];
  readonly never?: readonly string[];
}

/** Presses the next step's button until none is left; every step is stored before the page says so. */
async function tickAll(page: Page, way: "in" | "back", phone: boolean): Promise<string[]> {
  const played: string[] = [];
  const list = page.locator(`[data-way="${way}"]`);
  const verbs = way === "in" ? /^Removed\b/ : /^(Refitted|Tested)\b/;
  for (;;) {
    const line = list.locator("li", { has: page.getByRole("button", { name: verbs }) }).first();
    if ((await line.count()) === 0) return played;
    const step = await line.getAttribute("data-step");
    if (!step) throw new Error("a line without its step");
    const title = page.locator(".btn-main").last();
    // On a phone the next step is under the thumb; at a desk its own row is pressed.
    if (phone) await title.tap();
    else await line.getByRole("button", { name: verbs }).click();
    const own = list.locator(`[data-step="${step}"]`);
    await expect(own.getByRole("button", { name: "undo", exact: true })).toBeVisible();
    played.push(step);
  }
}

/** Plays a demo plan from the first screw to the last, with a balanced tray, and has its estimate approved. */
export async function playPlan(page: Page, plan: Played, phone: boolean): Promise<void> {
  await page.goto("/jobs/new");
  await page.getByLabel("Vehicle", { exact: true }).selectOption({ label: plan.vehicle });
  await page.getByRole("button", { name: "Start job" }).click();
  await page.waitForURL(/\/complaint$/);
  const job = /jobs\/(\d+)/.exec(page.url())?.[1];
  await page.goto(`/jobs/${job}/fit`);
  await page.waitForLoadState("networkidle");
  const out = page.locator('[aria-label="Parts to remove, and how"]');
  for (const name of await out.locator('button[aria-pressed="true"].btn').allInnerTexts()) {
    if (name.endsWith(plan.part) || (plan.way?.test(name) ?? false)) continue;
    const pressed = out.getByRole("button", { name, exact: true });
    await pressed.click();
    await expect(pressed).toHaveAttribute("aria-pressed", "false");
  }
  const wanted = out.locator("button.btn", { hasText: new RegExp(`${plan.part}$`) });
  if ((await wanted.getAttribute("aria-pressed")) === "false") await wanted.click();
  await expect(wanted).toHaveAttribute("aria-pressed", "true");
  if (plan.way) {
    const way = out.getByRole("button", { name: plan.way });
    await way.click();
    await expect(way).toHaveAttribute("aria-pressed", "true");
  }
  const there = await tickAll(page, "in", phone);
  for (const step of plan.through) expect(there).toContain(step);
  for (const step of plan.never ?? []) expect(there).not.toContain(step);
  const lying = Number(await page.getByTestId("tray").innerText());
  expect(lying).toBeGreaterThan(0);
  // A reload loses nothing.
  await page.reload();
  await page.waitForLoadState("networkidle");
  await page.getByRole("tab", { name: /^Refitting/ }).click();
  const back = await tickAll(page, "back", phone);
  expect(back).toContain("test");
  await expect(page.getByTestId("tray")).toHaveText("0");
  await expect(page.getByText("All screws are accounted for.")).toBeVisible();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(page.viewportSize()?.width ?? 0);

  await page.goto(`/jobs/${job}/estimate`);
  await page.waitForLoadState("networkidle");
  const before = await page.locator("[data-version]").count();
  await page.locator('[data-offer="part-only"]').getByRole("button", { name: "Estimate this" }).click();
  const version = page.locator("[data-version]").first();
  await expect(page.locator("[data-version]")).toHaveCount(before + 1);
  await version.getByRole("button", { name: "Approved" }).click();
  await expect(version.getByText(/✓ approved .*, by phone/)).toBeVisible();
}

/** A pack hidden behind its motor; a motor cut out with its ring; battery and tray; a broken ear. */
export const demoPlans = {
  "a pack hidden behind the motor": {
    vehicle: "Fenmark Siskin wagon, market wagon 2",
    part: "R1",
    through: ["motor-screws", "x5-off", "pack-screws"],
  },
  "a moulded-in motor cut out with its ring": {
    vehicle: "Skerry Godwit hatchback, bakery hatchback",
    part: "M1",
    through: ["negative", "cut-out"],
    never: ["dash-out"],
  },
  "battery and tray": {
    vehicle: "Tarnwick Dunlin truck, harbour truck 1",
    part: "M1",
    through: ["negative", "battery", "tray", "washer", "motor-screws"],
  },
  "a broken ear instead of the dash": {
    vehicle: "Orrin Dotterel saloon, harbour office saloon",
    part: "M1",
    way: /^Quickest/,
    through: ["break-ear", "motor-down"],
    never: ["dash-out"],
  },
} as const satisfies Readonly<Record<string, Played>>;

// npm run screenshots [-- NAME ...]: takes docs/screenshots, or some of them, again from the demo workshop, in a data folder of its own.
import { join } from "node:path";
import { demoServer } from "./demo-server.mjs";
import { root } from "./freshness.mjs";

const port = 4397;
const desk = { width: 1280, height: 800 };
const views = [
  { name: "board", path: "/" },
  { name: "heard", path: "/jobs/6/complaint" },
  { name: "probe", path: "/jobs/6/probe" },
  { name: "work", path: "/jobs/3/work", act: (page) => listMore(page) },
  { name: "figures", path: "/records/figures" },
  { name: "verdict", path: "/jobs/2/verdict" },
  { name: "humps", path: "/jobs/8/motor?view=humps", act: (page) => scopeWorn(page) },
  { name: "match", path: "/jobs/6/parts?part=M1", act: (page) => holdOther(page) },
  { name: "fit", path: "/jobs/16/fit", act: (page) => halfWayBack(page) },
  { name: "estimate", path: "/jobs/6/estimate", act: (page) => approveFirst(page), scheme: "dark" },
  { name: "way", path: "/shelf/dotterel-switch-feed/way", act: (page) => bookWay(page) },
  { name: "prove", path: "/jobs/2/prove?by=amps", act: (page) => clampTop(page) },
  { name: "card", path: "/jobs/30/close" },
  { name: "shelf", path: "/shelf" },
  { name: "trace", path: "/trace", act: (page) => trace(page) },
  {
    name: "practice",
    path: "/practice/trainer?circuit=whimbrel-four-speed",
    act: (page, address) => inTheBay(page, address),
  },
  { name: "no-diagram", path: "/jobs/no-diagram", act: (page) => withoutDiagram(page) },
  { name: "sums", path: "/sums/wire-drop?job=6" },
  { name: "phone", path: "/jobs/5/probe", viewport: { width: 390, height: 844 } },
];

async function listMore(page) {
  await page.getByText("Add a line", { exact: true }).click();
  await page
    .getByRole("combobox", { name: "What", exact: true })
    .last()
    .selectOption({ label: "resistor plug X5" });
  await page
    .getByRole("combobox", { name: "Work", exact: true })
    .last()
    .selectOption({ label: "splice in a new plug" });
  await page.getByLabel("Planned minutes").last().fill("25");
  await page.getByLabel("Price").last().fill("15.00");
  await page.getByRole("button", { name: "Add line" }).click();
  await page.locator('[data-work="X5"]').waitFor();
}

async function clampTop(page) {
  for (const [step, amps] of [
    ["up-1", "3.1"],
    ["up-2", "5.3"],
    ["up-3", "11.9"],
  ]) {
    const line = page.locator(`[data-step="${step}"]`);
    await line.getByRole("textbox").fill(amps);
    await line.getByRole("button", { name: "Save" }).click();
    await line.getByText(/A: /).waitFor();
  }
}

async function inTheBay(page, address) {
  await page.getByLabel(/^Title/).fill("Four speeds, set by the trainer");
  await page.getByLabel(/^Fault:/).fill("R1.link:open");
  await page.getByRole("button", { name: "Check the case" }).click();
  const saved = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save the case" }).click();
  const file = await (await saved).path();
  await page.goto(`${address}/practice`);
  await page.getByRole("textbox", { name: /label/ }).fill("apprentice 1");
  await page.getByRole("button", { name: "Begin" }).click();
  await page.getByLabel("Or open a case file from a trainer").setInputFiles(file);
  await page.getByRole("button", { name: "Open case" }).click();
  await page.waitForURL(/cases/);
  await page.getByRole("button", { name: "Feel the air" }).click();
  await page.locator('[data-act="1"]').waitFor();
  await page.locator('.airway-sheet [data-point="X5:2"]').click();
  await page.getByRole("button", { name: /^Open .* first/ }).click();
  await page.locator('[data-act="2"]').waitFor();
  await page.getByRole("button", { name: /^Light from feed/ }).click();
  await page.locator('[data-act="3"]').waitFor();
}

async function withoutDiagram(page) {
  for (const choice of ["a dial or lever", "a resistor pack"]) await page.getByText(choice).click();
  await page.locator('label:has(input[name="speeds"][value="4"])').click();
  await page.getByRole("button", { name: "Only the top speed works" }).click();
  await page.getByRole("button", { name: "Start with the first test" }).click();
  await page.locator("#next-place-test").waitFor();
  await page.locator('#next-place button[name="seen"][value="normal"]').click();
  await page.locator('[data-reading="5"]').waitFor();
  await page.getByText("What it may show").click();
}

async function trace(page) {
  await page.getByLabel("Vehicle", { exact: true }).fill("Fenmark Siskin wagon, short roof");
  await page.getByRole("button", { name: "Begin" }).click();
  const answers = ["at all times", "Next", "through a relay", "Next", "a resistor pack", "ground"];
  for (const answer of answers) {
    const asked = await page.locator("[data-asked]").getAttribute("data-asked");
    await page.locator("[data-asked]").getByRole("button", { name: answer, exact: true }).click();
    await page.locator(`[data-asked="${asked}"]`).waitFor({ state: "hidden" });
  }
  await page.waitForTimeout(800);
}

async function holdOther(page) {
  await page.getByLabel("New part").selectOption("QR 700 118");
  await page.getByRole("button", { name: "Compare" }).click();
  await page.getByRole("heading", { name: "Fits with modification." }).waitFor();
}

async function tickOff(page, way, verb, steps) {
  for (const step of steps) {
    const line = page.locator(`[data-way="${way}"] [data-step="${step}"]`);
    await line.getByRole("button", { name: verb }).click();
    await line.getByRole("button", { name: "undo" }).waitFor();
  }
}

async function halfWayBack(page) {
  await page.locator("button.btn", { hasText: /R1$/ }).click();
  await page.locator('[data-step="pack-screws"]').waitFor();
  const steps = ["flap", "glove-box", "computer", "x3-off", "tube", "motor-screws", "x5-off", "pack-screws"];
  await tickOff(page, "in", /^Removed\b/, steps);
  await page.getByRole("tab", { name: /^Refitting/ }).click();
  await tickOff(page, "back", /^Refitted\b/, ["pack-screws", "x5-off"]);
  await page.locator("#main").evaluate((main) => main.parentElement?.scrollTo(0, 0));
}

async function approveFirst(page) {
  await page.locator('[data-offer="part-only"]').getByRole("button").click();
  await page.getByRole("button", { name: "Approved" }).click();
  await page.getByText(/approved .*by phone/).waitFor();
  await page.locator("#main").evaluate((main) => main.parentElement?.scrollTo(0, 0));
  // The ways to do the job, with the recommended one, stand at the top.
  await page.evaluate(() => window.scrollTo(0, 0));
}

async function bookWay(page) {
  await page
    .getByRole("button", { name: /quickest route/ })
    .first()
    .click();
  await page.evaluate(() => window.scrollTo(0, 0));
}

async function attach(page, fault) {
  await page.getByText("Network instrument or practice instrument").click();
  await page.getByLabel("practice vehicle with").selectOption({ label: fault });
  await page.getByRole("button", { name: "Attach practice instrument" }).click();
  await page.getByRole("button", { name: "Detach instrument" }).waitFor();
}

async function scopeWorn(page) {
  await attach(page, "a worn commutator");
  await page.getByRole("button", { name: "From the practice scope" }).click();
  await page.getByRole("button", { name: /bad ripples/ }).waitFor();
  await page.getByText("Practice instrument attached").click();
  await page.getByText("Ripple by ripple").scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await page.locator("#humps").scrollIntoViewIfNeeded();
}

const { browser, address, stop } = await demoServer(port);
const wanted = process.argv.slice(2);
try {
  for (const { name, path, act, scheme = "light", viewport = desk } of views) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const page = await browser.newPage({ viewport, colorScheme: scheme });
    await page.goto(`${address}${path}`);
    await page.waitForLoadState("networkidle");
    if (name === "board")
      await page
        .getByText("Working out the next test…")
        .first()
        .waitFor({ state: "hidden", timeout: 90_000 });
    await page.waitForTimeout(300);
    await act?.(page, address);
    await page.waitForTimeout(300);
    await page.screenshot({ path: join(root, "docs", "screenshots", `${name}.png`) });
    await page.close();
  }
} finally {
  await stop();
}

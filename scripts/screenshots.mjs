// npm run screenshots: takes docs/screenshots anew from the demo workshop, in a data folder of its own.
import { join } from "node:path";
import { demoServer } from "./demo-server.mjs";
import { root } from "./freshness.mjs";

const port = 4397;
const desk = { width: 1280, height: 800 };
const views = [
  { name: "board", path: "/" },
  { name: "heard", path: "/jobs/6/complaint" },
  { name: "probe", path: "/jobs/6/probe" },
  { name: "point", path: "/jobs/6/probe", act: (page) => page.locator('[data-point="X5:2"]').click() },
  { name: "path-board", path: "/jobs/6/probe", act: (page) => openBoard(page) },
  { name: "part", path: "/jobs/6/probe", act: (page) => openMotor(page) },
  { name: "probe-control", path: "/jobs/7/probe" },
  { name: "probe-night", path: "/jobs/5/probe", scheme: "dark" },
  { name: "verdict", path: "/jobs/2/verdict" },
  { name: "draw", path: "/jobs/6/motor", act: (page) => clampTight(page) },
  { name: "humps", path: "/jobs/8/motor?view=humps", act: (page) => scopeWorn(page) },
  { name: "prove", path: "/jobs/2/prove" },
  { name: "card", path: "/jobs/1/close" },
  { name: "shelf", path: "/shelf" },
  { name: "circuit", path: "/shelf/godwit-two-relays" },
  { name: "trace", path: "/trace", act: (page) => trace(page) },
  { name: "trace-wires", path: "/trace", act: (page) => traceWires(page) },
  { name: "phone", path: "/jobs/5/probe", viewport: { width: 390, height: 844 } },
];

async function openBoard(page) {
  await page.keyboard.press("p");
  await page.getByRole("button", { name: /^R1\.e3 on 2:/ }).click();
  await page.locator('[data-path="M1"]').scrollIntoViewIfNeeded();
}

async function trace(page) {
  await page.getByLabel("Vehicle", { exact: true }).fill("Fenmark Siskin wagon, short roof");
  await page.getByRole("button", { name: "Begin" }).click();
  const answers = [
    "at all times",
    "That is it",
    "through a relay",
    "That is it",
    "a resistor pack",
    "ground",
  ];
  for (const answer of answers) {
    const asked = await page.locator("[data-asked]").getAttribute("data-asked");
    await page.locator("[data-asked]").getByRole("button", { name: answer, exact: true }).click();
    await page.locator(`[data-asked="${asked}"]`).waitFor({ state: "hidden" });
  }
  await page.waitForTimeout(800);
}

async function traceWires(page) {
  await trace(page);
  await page.getByRole("tab", { name: "Wires" }).click();
  await page.getByLabel("Colour of W3", { exact: true }).fill("RED");
}

async function openMotor(page) {
  await page.locator('[data-wire="W9"]').click({ force: true });
  await page.keyboard.press("c");
}

async function attach(page, fault) {
  await page.getByText("Instrument on a socket").click();
  await page.getByLabel("practice vehicle with").selectOption({ label: fault });
  await page.getByRole("button", { name: "Attach practice instrument" }).click();
  await page.getByRole("button", { name: "Take it off" }).waitFor();
}

async function clampTight(page) {
  await attach(page, "a tight motor");
  for (const speed of ["2", "3", "4"]) {
    await page.getByLabel("speed it reads at").selectOption(speed);
    await page.getByRole("button", { name: "Read", exact: true }).click();
    await page.getByRole("button", { name: "Keep this reading" }).click();
    await page.waitForTimeout(900);
  }
  await page.getByText("Practice instrument attached").click();
  await page.waitForTimeout(800);
}

async function scopeWorn(page) {
  await attach(page, "a worn commutator");
  await page.getByRole("button", { name: "From the practice scope" }).click();
  await page.getByRole("button", { name: /bad humps/ }).waitFor();
  await page.getByText("Practice instrument attached").click();
  await page.getByText("Hump by hump").scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await page.locator("#humps").scrollIntoViewIfNeeded();
}

const { browser, address, stop } = await demoServer(port);
for (const { name, path, act, scheme = "light", viewport = desk } of views) {
  const page = await browser.newPage({ viewport, colorScheme: scheme });
  await page.goto(`${address}${path}`);
  await page.waitForLoadState("networkidle");
  await page.waitForTimeout(name === "board" ? 4000 : 300);
  await act?.(page);
  await page.waitForTimeout(300);
  await page.screenshot({ path: join(root, "docs", "screenshots", `${name}.png`) });
  await page.close();
}
await stop();

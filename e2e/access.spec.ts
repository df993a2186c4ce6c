import { AxeBuilder } from "@axe-core/playwright";
import { hardToReadText } from "./plainText";
import { expect, test } from "./shop";

/** Rules of WCAG 2.2, levels A and AA. */
const wcag22aa = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];

const views = [
  "/",
  "/jobs/new",
  "/jobs/no-diagram",
  "/jobs/4/complaint",
  "/jobs/5/probe",
  "/jobs/4/probe",
  "/jobs/4/verdict",
  "/jobs/4/motor",
  "/jobs/4/parts",
  "/jobs/4/estimate",
  "/jobs/4/fit",
  "/jobs/9/fit",
  "/shelf/dotterel-switch-feed/way",
  "/settings",
  "/phones",
  "/sign-in",
  "/find?q=bakery",
  "/jobs/3/prove",
  "/records",
  "/records/in",
  "/records/figures",
  "/records/learnt",
  "/records/keeping",
  "/records/vehicle/4",
  "/jobs/18/trail",
  "/jobs/18/close",
  "/jobs/2/prove",
  "/jobs/2/work",
  "/jobs/3/work",
  "/jobs/1/close",
  "/shelf",
  "/bring-in",
  "/trace",
  "/shelf/whimbrel-four-speed",
  "/practice",
  "/practice/trainer",
  "/sums/pack",
  "/sums/wire-drop?job=4",
  "/nowhere",
];

test("right after a start the board has every job's line at once, as it was stored", async ({ page }) => {
  await page.goto("/", { waitUntil: "commit" });
  await expect(page.getByText("Working out the next test…")).toHaveCount(0);
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.getByText(/^(Next test|Verdict|Waiting for|Fitted): /).first()).toBeVisible();
});

test("axe finds nothing serious on any view, light or dark; none breaks, and none shows raw values", async ({
  page,
}) => {
  const broken: string[] = [];
  page.on("pageerror", (error) => broken.push(`${page.url()}: ${error.message}`));
  page.on("console", (message) => {
    // A missing page answers 404, as it should.
    if (message.type() === "error" && !message.text().includes("404"))
      broken.push(`${page.url()}: ${message.text()}`);
  });
  for (const view of views) {
    await page.goto(view);
    await page.locator("#main").waitFor();
    expect(await hardToReadText(page)).toEqual([]);
    for (const colorScheme of ["light", "dark"] as const) {
      await page.emulateMedia({ colorScheme });
      const axe = new AxeBuilder({ page });
      const { violations } = await (colorScheme === "light"
        ? axe.withTags(wcag22aa)
        : // The page is the same, so only what depends on colour can differ.
          axe.withRules(["color-contrast", "link-in-text-block"])
      ).analyze();
      const found = violations.map(
        ({ id, nodes }) =>
          `${view}, ${colorScheme}, ${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(" | ")}`,
      );
      expect(found).toEqual([]);
    }
  }
  expect(broken).toEqual([]);
});

for (const scheme of ["light", "dark"] as const) {
  test(`axe finds nothing serious on the probe page with everything open, ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto("/jobs/4/probe");
    await page.waitForLoadState("networkidle");
    const check = async (what: string) => {
      const { violations } = await new AxeBuilder({ page }).withTags(wcag22aa).analyze();
      expect(violations.map(({ id, nodes }) => `${what} ${id}: ${nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
    };
    await page.locator('[data-point="X4:1"]').click();
    for (const fold of ["Path board", "Enter another test", "Other tests", "What could come next"])
      await page.getByText(fold, { exact: true }).click();
    await page.getByRole("button", { name: /^motor first/ }).waitFor();
    await page.getByLabel("Show the drawing as if").selectOption({ index: 1 });
    await page.keyboard.press("c");
    await check("open");
    await page.getByRole("button", { name: "Add a note to this job" }).click();
    await check("note");
  });
}

test("the theme chosen by hand stays", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Theme: auto" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
});

test("in the system's own colours a chosen button still looks chosen, and a chart is painted", async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: "active", colorScheme: "dark" });
  await page.goto("/jobs/5/probe");
  const fills = await page
    .getByRole("radio", { name: /^[1-4]/ })
    .evaluateAll((all) => all.map((one) => getComputedStyle(one).backgroundColor));
  expect(fills).toHaveLength(4);
  expect(new Set(fills).size).toBe(2);
  await page.goto("/jobs/2/prove");
  const inks = (): Promise<number> =>
    page.locator("canvas").evaluate((own: HTMLCanvasElement) => {
      const { data } = own.getContext("2d")?.getImageData(0, 0, own.width, own.height) ?? { data: [] };
      return new Set(Array.from(data).filter((_, at) => at % 4 === 0)).size;
    });
  await expect.poll(inks).toBeGreaterThan(3);
});

test("a laptop at 200 % shows the next test first, and nothing lies over it", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await page.goto("/jobs/5/probe");
  await expect(page.getByRole("button", { name: "Save" })).toBeInViewport({ ratio: 1 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(640);
});

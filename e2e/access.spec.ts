import { AxeBuilder } from "@axe-core/playwright";
import { expect, test } from "@playwright/test";

const views = [
  "/",
  "/jobs/new",
  "/jobs/4/complaint",
  "/jobs/5/probe",
  "/jobs/4/probe",
  "/jobs/4/verdict",
  "/jobs/3/prove",
  "/jobs/2/prove",
  "/jobs/1/close",
  "/nowhere",
];

for (const scheme of ["light", "dark"] as const) {
  test(`axe finds nothing serious on any view, ${scheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    for (const view of views) {
      await page.goto(view);
      await page.locator("#main").waitFor();
      const { violations } = await new AxeBuilder({ page })
        .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
        .analyze();
      const found = violations.map(
        ({ id, nodes }) => `${view} ${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(" | ")}`,
      );
      expect(found).toEqual([]);
    }
  });
}

test("the theme chosen by hand stays", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Light: auto" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
});

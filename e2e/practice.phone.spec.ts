import { accessible, learnAndPractise, notWiderThan } from "./practiceSteps";
import { test } from "./shop";

test("on a phone: three lessons, a case won and one lost on purpose", async ({ page }) => {
  await learnAndPractise(page, "apprentice 2", (target) => target.tap());
  await notWiderThan(page, 390);
  for (const path of [
    "/practice",
    "/practice/lessons/drop",
    "/practice/trainer",
    "/sums/pack",
    "/sums/wire-and-fuse",
  ]) {
    await page.goto(path);
    await page.waitForLoadState("networkidle");
    await notWiderThan(page, 390);
  }
  await accessible(page);
});

import { demoPlans, playPlan } from "./fitSteps";
import { test } from "./shop";

for (const [name, plan] of Object.entries(demoPlans))
  test(`with one thumb, to the end: ${name}`, async ({ page }) => {
    await playPlan(page, plan, true);
  });

import { test } from "./shop";
import { byPointer } from "./steps";
import { motorThenPlug, oiledBearing, type Press } from "./workSteps";

const press: Press = (page, name) => page.getByRole("button", { name, exact: true }).click();

test("a motor renewed, the check fails on one speed, a plug spliced: both stay true", ({ page }) =>
  motorThenPlug(page, byPointer, press));

test("a bearing oiled as a stopgap, and a battery terminal renewed", ({ page }) =>
  oiledBearing(page, byPointer, press));

import { test } from "./shop";
import { byTouch } from "./steps";
import { motorThenPlug, oiledBearing, type Press } from "./workSteps";

const press: Press = (page, name) => page.getByRole("button", { name, exact: true }).tap();

test("by touch: a motor renewed, the check fails on one speed, a plug spliced", ({ page }) =>
  motorThenPlug(page, byTouch, press));

test("by touch: a bearing oiled as a stopgap, and a battery terminal renewed", ({ page }) =>
  oiledBearing(page, byTouch, press));

import { test } from "./shop";
import { byTouch } from "./steps";
import { motorAndPack, packPutBack } from "./visitSteps";
import { motorThenPlug, oiledBearing, type Press } from "./workSteps";

const press: Press = (page, name) => page.getByRole("button", { name, exact: true }).tap();

test("by touch: a motor renewed, the check fails on one speed, a plug spliced", ({ page }) =>
  motorThenPlug(page, byTouch, press));

test("by touch: a bearing oiled as a stopgap, and a battery terminal renewed", ({ page }) =>
  oiledBearing(page, byTouch, press));

test("by touch: a tight motor and the pack it burnt out, in one visit to the bill and the records", ({
  page,
}) => motorAndPack(page, byTouch, press));

test("by touch: a pack proved good and put back, a wire mended, a battery terminal renewed", ({ page }) =>
  packPutBack(page, byTouch, press));

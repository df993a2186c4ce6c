import { test } from "./shop";
import { byPointer } from "./steps";
import { motorAndPack, packPutBack } from "./visitSteps";
import { motorThenPlug, oiledBearing, type Press } from "./workSteps";

const press: Press = (page, name) => page.getByRole("button", { name, exact: true }).click();

test("a motor renewed, the check fails on one speed, a plug spliced: both stay true", ({ page }) =>
  motorThenPlug(page, byPointer, press));

test("a bearing oiled as a stopgap, and a battery terminal renewed", ({ page }) =>
  oiledBearing(page, byPointer, press));

test("a tight motor and the pack it burnt out, in one visit to the bill and the records", ({ page }) =>
  motorAndPack(page, byPointer, press));

test("a pack proved good and put back, a wire mended, a battery terminal renewed", ({ page }) =>
  packPutBack(page, byPointer, press));

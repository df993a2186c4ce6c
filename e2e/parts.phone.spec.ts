import { mouldedMotor, splicedPack } from "./partSteps";
import { test } from "./shop";
import { byTouch } from "./steps";
import type { Press } from "./workSteps";

const press: Press = (page, name) => page.getByRole("button", { name, exact: true }).tap();

test("by touch: an improved pack is spliced in, and a lost screw stops the close until it is explained", ({
  page,
}) => splicedPack(page, byTouch, press));

test("by touch: a moulded motor is replaced by the ring kit, its wheel and tube carried over", ({ page }) =>
  mouldedMotor(page, byTouch, press));

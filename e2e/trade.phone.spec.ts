import { test } from "./shop";
import { byTouch } from "./steps";
import { playTradeCase, tradeCases } from "./tradeCases";

for (const own of tradeCases)
  test(`by touch: ${own.name}`, ({ page }) =>
    playTradeCase(page, own, byTouch, (name) => page.getByRole("button", { name, exact: true }).tap()));

import { test } from "./shop";
import { byPointer } from "./steps";
import { playTradeCase, tradeCases } from "./tradeCases";

for (const own of tradeCases)
  test(own.name, ({ page }) =>
    playTradeCase(page, own, byPointer, (name) => page.getByRole("button", { name, exact: true }).click()),
  );

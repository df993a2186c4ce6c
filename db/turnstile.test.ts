import { expect, test } from "@jest/globals";
import { behindShutDoor, enter } from "./turnstile.server";

test("started requests end first, new ones wait, and both are answered", async () => {
  const order: string[] = [];
  // The request that asks for the change is inside itself.
  const own = await enter();
  const leave = await enter();
  const changing = behindShutDoor(() => Promise.resolve(order.push("changed")));
  const late = enter().then((out) => {
    order.push("late came in");
    out();
  });
  await new Promise((resolve) => setTimeout(resolve, 60));
  expect(order).toEqual([]);
  order.push("early left");
  leave();
  // Letting it out twice counts once.
  leave();
  await Promise.all([changing, late]);
  expect(order).toEqual(["early left", "changed", "late came in"]);
  own();
});

test("a change that fails opens the door again", async () => {
  await expect(behindShutDoor(() => Promise.reject(new Error("no")))).rejects.toThrow("no");
  (await enter())();
});

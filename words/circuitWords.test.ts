import { expect, test } from "@jest/globals";
import { circuitFamily } from "../core/solve/checks/circuitFamily";
import { shippedIds, shippedNetlist } from "../core/testing/shippedCircuit";
import { familyNameText, familyText } from "./circuitWords";

// The family agrees with each shipped circuit's own title.
test.each([
  ["whimbrel-four-speed", "4 speeds, resistor pack on the ground side, 1 relay"],
  ["godwit-four-speed-feed", "4 speeds, resistor pack on the feed side, 1 relay"],
  ["dunlin-three-speed", "3 speeds, resistor pack on the ground side, no relay"],
  ["siskin-five-speed", "5 speeds, resistor pack on the ground side, 1 relay"],
  ["whimbrel-pwm-low", "7 speeds, PWM control module on the ground side, no relay"],
  ["dunlin-pwm-high", "6 speeds, PWM control module on the feed side, 1 relay"],
  ["siskin-linear-low", "linear control module on the ground side"],
  ["dotterel-linear-high", "linear control module on the feed side"],
  ["godwit-two-relays", "2 relays"],
  ["godwit-four-speed-rhd", "right-hand drive"],
  ["dunlin-rear-blower", "2 motors"],
])("%s: %s", (id, words) => expect(familyText(circuitFamily(shippedNetlist(id)))).toContain(words));

test("every shipped circuit has at least two speeds", () => {
  for (const id of shippedIds) expect(circuitFamily(shippedNetlist(id)).speeds).toBeGreaterThanOrEqual(2);
});

test("a family by its name is told in words", () => {
  expect(familyNameText("chopping feed")).toBe("PWM control module, feed side");
  expect(familyNameText("resistor ground")).toBe("resistor pack, ground side");
});

import type { AccessStep } from "@core/access/plan";
import { expect, test } from "@jest/globals";
import { backTitle } from "./accessWords";

const step: AccessStep = { id: "s", title: "", minutes: 1 };

test.each([
  ["Unplug the pack, X5: press the tab", "Plug in the pack, X5"],
  ["Remove the battery tray", "Refit the battery tray"],
  ["Disconnect the command lead", "Reconnect the command lead"],
  ["Swing the computer aside", "Refit what came off: Swing the computer aside"],
])("%s is refitted as %s", (title, back) =>
  expect(backTitle({ does: "undo", step: { ...step, title } })).toBe(back),
);

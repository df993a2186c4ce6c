// The circuit shelf: searched, opened, exported, imported with a change, and a job moved to it.
import { readFileSync } from "node:fs";
import { expect, test } from "./shop";

test("a circuit is found, taken out, changed, brought in as a new version, and a job is moved to it", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Shelf", exact: true }).click();
  await page.getByLabel("Vehicle or words").fill("two relays");
  await page.getByRole("button", { name: "Find" }).click();
  await expect(page.locator("[data-circuit]")).toHaveCount(1);
  await page.locator("[data-circuit]").getByRole("link").click();
  await expect(
    page.getByText("The currents, speeds, fuses and wires of the healthy circuit are plausible."),
  ).toBeVisible();
  await expect(page.locator(".airway-sheet")).toBeVisible();

  // The netlist is of the setting shown.
  const netlist = page.getByRole("link", { name: /^ngspice netlist on/ });
  await expect(netlist).toHaveText("ngspice netlist on high");
  await page.getByRole("radio", { name: /^low/ }).click();
  await expect(netlist).toHaveAttribute("href", /setting=low$/);
  const saving = page.waitForEvent("download");
  await page.getByRole("link", { name: "airway-circuit file" }).click();
  const text = readFileSync(await (await saving).path(), "utf8");
  const circuit = JSON.parse(text) as { title: string; parts: { id: string; kind: string; amps?: number }[] };
  const fuse = circuit.parts.find(({ kind, amps }) => kind === "fuse" && (amps ?? 0) >= 30);
  if (!fuse) throw new Error("no fuse");
  fuse.amps = 5;
  const field = page.getByLabel(/^Drop or paste/);
  await field.fill(JSON.stringify(circuit));
  await page.getByRole("button", { name: "Preview changes" }).click();
  const preview = page.getByRole("region", { name: circuit.title });
  await expect(preview).toContainText(`${fuse.id} changed`);
  await expect(preview).toContainText(/Wrong: \S+, a 5 A fuse, carries/);
  // What is certainly wrong is stored only after a yes.
  await page.getByRole("button", { name: "Save as version 2" }).click();
  await expect(page.getByRole("alert")).toContainText("Or tick “Save it anyway”.");
  await page.getByLabel("Save it anyway").check();
  await page.getByRole("button", { name: "Save as version 2" }).click();
  await expect(page.getByText(/, version 2/).first()).toBeVisible();
  await expect(page.getByText(/Wrong:/)).toBeVisible();
  await page.getByLabel(/where the bad screw is/).fill("Relay cover clips on the left");
  await page.getByRole("button", { name: "Save note" }).click();
  await expect(page.locator("[data-note]")).toContainText("Relay cover clips");
});

test("what cannot be taken says why and is kept as it was typed", async ({ page }) => {
  await page.goto("/bring-in");
  const field = page.getByLabel(/^Drop or paste/);
  await field.fill('{"format":"airway-circuit","version":1,"id":"x"}');
  await page.getByRole("button", { name: "Preview changes" }).click();
  await expect(page.getByRole("alert")).toContainText("title: expected string");
  await expect(field).toHaveValue('{"format":"airway-circuit","version":1,"id":"x"}');
  await expect(page.getByRole("button", { name: "Save to the shelf" })).toBeHidden();
});

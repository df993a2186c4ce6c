// A circuit nobody has yet: entered from a printed wire list by the trace, put on the shelf, and used for a diagnosis
// at once.
import { readFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { brokenVehicleOf } from "./brokenVehicle";
import { expect, type Page, test } from "./shop";
import { byPointer, hearTopOnly, probeToTheEnd } from "./steps";

/** The printed list of an invented wagon: colour, mm² and metres of the wires it gives figures for. */
const printed: readonly (readonly [from: string, to: string, colour: string, mm2: string, metres: string])[] =
  [
    ["G1.+", "J1.s", "RD", "10", "0.5"],
    ["J1.s", "F11.in", "RD", "6", "0.3"],
    ["S1.15", "F23.in", "BK/WH", "1", "0,6"],
    ["F11.out", "K2.30", "RD/YE", "4", "0.2"],
    ["F23.out", "K2.86", "GY/RD", "0.75", "1.5"],
    ["K2.85", "E7.31", "BN", "0.75", "0.5"],
    ["K2.87", "M1.+", "OG", "4", "1.9"],
    ["M1.-", "J2.s", "VT", "4", "0.4"],
    ["R1.T1", "S2.L1", "GN", "1.5", "0.9"],
    ["R1.T2", "S2.L2", "BU", "1.5", "0.9"],
    ["R1.T3", "S2.L3", "YE/BK", "2.5", "0.9"],
    ["J2.s", "S2.H", "VT/WH", "4", "0.9"],
    ["S2.C", "E6.31", "BN", "4", "0.7"],
  ];

async function quietToAxe(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
    .analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
}

/** Waits until every change is on disk, according to the page. */
const stored = (page: Page): Promise<void> =>
  expect(page.locator("[data-waiting]")).toHaveAttribute("data-waiting", "0");

/** Answers the question shown by its button. */
async function choose(page: Page, question: string, words: string): Promise<void> {
  const asked = page.locator(`[data-asked="${question}"]`);
  await asked.getByRole("button", { name: words, exact: true }).click();
  await expect(asked).toBeHidden();
}

/** Fills in the question shown; omitted fields stay unchanged. */
async function fill(page: Page, question: string, fields: Record<string, string>): Promise<void> {
  const asked = page.locator(`[data-asked="${question}"]`);
  for (const [label, value] of Object.entries(fields)) await asked.getByLabel(label).fill(value);
  await asked.getByRole("button", { name: "Next" }).click();
  await expect(asked).toBeHidden();
}

test("a ground-side four-speed circuit is traced from a printed list and finds its fault at once", async ({
  page,
}) => {
  await page.goto("/shelf");
  await page.getByRole("link", { name: "Trace a circuit" }).click();
  await page.getByLabel("Vehicle", { exact: true }).fill("Fenmark Siskin wagon, short roof");
  await page.getByRole("button", { name: "Begin" }).click();
  await page.waitForURL(/\/trace\/.+/);
  await expect(page.locator(".airway-sheet")).toBeVisible();

  await choose(page, "feed", "at all times");
  await fill(page, "fuse", { Fuse: "F11", "Rating, A": "40" });
  await choose(page, "relay", "through a relay");
  // A repeated name is refused with its place, and nothing is lost.
  const coil = page.locator('[data-asked="coil"]');
  await coil.getByLabel("Relay").fill("F11");
  await coil.getByRole("button", { name: "Next" }).click();
  await expect(coil.getByRole("alert")).toHaveText("F11 cannot be the name of two things");
  await fill(page, "coil", { Relay: "K2", "Coil's fuse": "F23", "Its rating, A": "10" });
  await choose(page, "control", "a resistor pack");
  await choose(page, "hands", "ground");
  await fill(page, "speeds", { Speeds: "4" });
  await choose(page, "top", "straight through the switch");
  await choose(page, "link", "all speeds that use the pack");
  await fill(page, "ohms", { "Coil 1": "1,3", "Coil 2": "0.6", "Coil 3": "0.35" });
  await fill(page, "grounds", { "Blower's ground": "E6", "Coil's ground": "E7" });
  await page.locator('[data-asked="motor"]').getByRole("button", { name: "Not known" }).click();
  await fill(page, "plugs", { "At the motor": "X31", "At the pack": "X32", "At the switch": "X33" });
  await fill(page, "reach", {
    "Fuse box": "2",
    "Fuses in the dash": "1",
    "Motor and pack": "5",
    Switch: "9",
  });
  await expect(page.getByText("14 of 14 answered")).toBeVisible();
  await expect(page.locator('[data-question="motor"]')).toContainText("not known, assumed");

  // The healthy volts confirm it: each speed gives more than the one before.
  const volts = await page
    .locator('[data-speeds="M1"] tbody tr td:first-of-type')
    .evaluateAll((cells) => cells.map((cell) => Number.parseFloat(cell.textContent ?? "")));
  expect(volts).toHaveLength(5);
  expect([...volts].sort((a, b) => a - b)).toEqual(volts);
  await expect(
    page.getByText("The currents, speeds, fuses and wires of the healthy circuit are plausible."),
  ).toBeVisible();

  await page.getByText("Path board").click();
  await page.getByRole("button", { name: /^R1\.e3 on 2:/ }).click();
  await expect(page.locator('[data-lit="M1"]')).toHaveCount(1);
  await quietToAxe(page);
  await page.getByRole("tab", { name: "Wires" }).click();
  await quietToAxe(page);
  let entries = 0;
  for (const [from, to, ...values] of printed) {
    const row = page
      .locator("tr[data-row]")
      .filter({ has: page.locator(`select:has(option[value="${from}"]:checked)`) })
      .filter({ has: page.locator(`select:has(option[value="${to}"]:checked)`) });
    const id = await row.getAttribute("data-row");
    for (const [index, title] of ["Colour", "mm²", "Metres"].entries()) {
      const cell = row.getByLabel(`${title} of ${id}`);
      const value = values[index] as string;
      // A colour that was guessed right is typed too: only then is it known.
      if (index > 0 && (await cell.inputValue()) === value.replace(",", ".")) continue;
      await cell.fill(value);
      await cell.press("Enter");
      entries += 1;
    }
    await expect(row.getByLabel(`${id} is assumed`)).not.toBeChecked();
  }
  expect(entries).toBeLessThanOrEqual(39);
  await stored(page);

  // A wrong cell is refused while it is typed; undo and redo go all the way.
  const colour = page.getByLabel("Colour of W1", { exact: true });
  await colour.fill("plaid");
  await expect(page.getByRole("alert").filter({ hasText: "IEC 60757" })).toBeVisible();
  await colour.press("Escape");
  await expect(colour).toHaveValue("RD");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel("Metres of W14")).not.toHaveValue("0.7");
  await page.getByRole("button", { name: "Redo" }).click();
  await stored(page);

  await page.reload();
  await expect(page.getByText("14 of 14 answered")).toBeVisible();
  await page.getByRole("tab", { name: "Parts" }).click();
  await quietToAxe(page);
  await page.getByRole("button", { name: "Save to the shelf" }).click();
  await page.waitForURL(/\/shelf\/fenmark-siskin-wagon-short-roof$/);
  const saving = page.waitForEvent("download");
  await page.getByRole("link", { name: "airway-circuit file" }).click();
  const text = readFileSync(await (await saving).path(), "utf8");
  const { wires } = JSON.parse(text) as { wires: Record<string, unknown>[] };
  for (const [from, to, colour, mm2, metres] of printed)
    expect(wires).toContainEqual(
      expect.objectContaining({
        from,
        to,
        colour,
        mm2: Number(mm2),
        metres: Number(metres.replace(",", ".")),
      }),
    );

  const wagon = brokenVehicleOf(text, "R1.link:open");
  await page.getByRole("link", { name: "New job on it" }).click();
  await page.getByLabel("Nickname or fleet number").fill("market wagon 8");
  await page.getByLabel("Make and model").fill("Fenmark Siskin wagon");
  await page.getByRole("button", { name: "Start job" }).click();
  await hearTopOnly(page);
  await page.getByRole("link", { name: "Continue to Probe" }).click();
  await expect(page.getByText("Not certain yet.")).toBeVisible();
  await probeToTheEnd(page, wagon, byPointer, 6);
  await expect(page.getByText("Confirmed:")).toBeVisible();
  await expect(page.getByText("Confirmed:").locator("..")).toContainText("R1");
});

test("a circuit on the shelf is changed in its tables and becomes its next version", async ({ page }) => {
  await page.goto("/shelf/siskin-five-speed");
  await page.getByRole("button", { name: "Edit circuit" }).click();
  await page.waitForURL(/\/trace\/.+/);
  await page.getByRole("tab", { name: "Parts" }).click();
  const fuse = page.locator("tr[data-row]").filter({ hasText: "fuse" }).first();
  const id = await fuse.getAttribute("data-row");
  await page.getByLabel(`A of ${id}`).fill("6");
  await page.getByLabel(`A of ${id}`).press("Enter");
  await expect(page.getByText(`${id}, a 6 A fuse, carries`).first()).toBeVisible();
  await page.getByLabel(`name of ${id}`).fill("F77");
  await page.getByLabel(`name of ${id}`).press("Enter");
  await expect(page.getByText("F77, a 6 A fuse, carries").first()).toBeVisible();
  // The focus stays in the row that was renamed.
  await expect(page.getByLabel("name of F77")).toBeFocused();

  // Two pins swap without a spare number, and leaving the field at once does not send the change again.
  await page.getByRole("tab", { name: "Pins" }).click();
  const pin = page.getByLabel(/^pin \S+:1$/).first();
  const plug = ((await pin.getAttribute("aria-label")) ?? "").replace(/^pin |:1$/g, "");
  const terminal = page.getByLabel(`where ${plug}:2 connects to`);
  const second = await terminal.inputValue();
  await pin.fill("2");
  await pin.press("Enter");
  await page.keyboard.press("Tab");
  await expect(page.getByLabel(`where ${plug}:1 connects to`)).toHaveValue(second);
  await stored(page);
  await expect(page.getByText("Nothing was saved")).toHaveCount(0);

  await page.getByRole("tab", { name: "Wires" }).click();
  await page.getByRole("button", { name: "Add the wire" }).click();
  await expect(page.getByRole("form", { name: "Add a wire" }).getByRole("alert")).toContainText("from");
  await page.getByText("Paste a wire list").click();
  await page.getByLabel(/^Columns wire/).fill("wire,from,to,colour,mm2,metres\nW1,G1.+,Q9.x,RD,6,1");
  await page.getByRole("button", { name: "Replace the wires" }).click();
  await expect(page.getByText(/row 2, to: .*Q9/)).toBeVisible();

  // While the server is away the change waits, the page says so, and it is stored when the server is back.
  await page.route("**/steps", (route) => route.abort());
  await page.getByLabel("Metres of W1", { exact: true }).fill("0.9");
  await page.getByLabel("Metres of W1", { exact: true }).press("Enter");
  await expect(page.getByText("The server does not answer")).toBeVisible();
  await expect(page.getByRole("button", { name: "Save as version 2" })).toBeDisabled();
  // It survives a reload and still waits.
  page.once("dialog", (dialog) => void dialog.accept());
  await page.reload();
  await expect(page.locator("[data-waiting]")).toHaveAttribute("data-waiting", "1");
  await page.unroute("**/steps");
  await stored(page);
  await page.getByLabel("Save it anyway").check();
  await page.getByRole("button", { name: "Save as version 2" }).click();
  await page.waitForURL(/\/shelf\/siskin-five-speed$/);
  await expect(page.getByText(/, version 2/).first()).toBeVisible();
});

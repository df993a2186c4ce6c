import { readFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { buildNetlist } from "@core/solve/buildNetlist";
import { parseCircuit } from "../core/circuit/parseCircuit";
import { exerciseOn } from "../core/practice/curriculum";
import { type PracticeCircuit, practiceCircuit } from "../core/practice/practiceCase";
import { CompiledCircuit } from "../core/predict/tables/compiledCircuit";
import { exerciseWords } from "../words/exerciseWords";
import { expect, type Page } from "./shop";

/** How a hand does it: a mouse clicks, a finger taps. */
export type Press = (target: ReturnType<Page["locator"]>) => Promise<void>;

const settled = (page: Page) => page.waitForLoadState("networkidle");

export async function accessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
}

export async function notWiderThan(page: Page, width: number): Promise<void> {
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
}

/** Adds a learner of its own and stays on their page. */
export async function practiseAs(page: Page, label: string, press: Press): Promise<void> {
  await page.goto("/practice");
  await page.getByRole("textbox", { name: /label/ }).fill(label);
  await press(page.getByRole("button", { name: /^(Begin|Add)$/ }));
  await page.waitForURL(/learner=/);
  await expect(page.getByRole("link", { name: "What each speed proves" })).toBeVisible();
}

/** A circuit's current version on the shelf, because other tests add versions and circuits. */
async function circuitOnShelf(page: Page, rowId: string): Promise<PracticeCircuit> {
  const answer = await page.request.get(`/shelf/${rowId.split("@")[0]}/file/json`);
  const circuit = parseCircuit(await answer.json());
  const netlist = circuit.ok ? buildNetlist(circuit.value, { lumpWires: true }) : circuit;
  if (!netlist.ok) throw new Error(`${rowId} cannot be solved`);
  return practiceCircuit(new CompiledCircuit(netlist.value));
}

/** Answers a lesson's questions until a number in a row are right; the first one wrong on purpose if asked. */
export async function takeLesson(
  page: Page,
  title: string,
  press: Press,
  wrongFirst: boolean,
): Promise<void> {
  await press(page.getByRole("link", { name: title }));
  await page.waitForURL(/lessons/);
  await settled(page);
  for (let question = 0, right = 0; right < 3; question++) {
    const value = (name: string) => page.locator(`input[name="${name}"]`).inputValue();
    const [item, seed, rowId] = [await value("item"), Number(await value("seed")), await value("rowId")];
    const on = await circuitOnShelf(page, rowId);
    const exercise = exerciseOn(item, on, seed);
    if (!exercise) throw new Error(`nothing asked of ${rowId}`);
    const words = exerciseWords(on.exact.circuit, exercise);
    await expect(page.getByText(words.question, { exact: true })).toBeVisible();
    const wrong = wrongFirst && question === 0;
    const [other] = exercise.answers.filter((id) => !exercise.right.includes(id));
    const chosen = wrong ? [other ?? ""] : exercise.right;
    for (const id of chosen) await press(page.locator(`input[name="chosen"][value="${id}"]`));
    await press(page.getByRole("button", { name: /^Answer/ }));
    await expect(page.getByText(wrong ? "Wrong." : "Right.", { exact: true })).toBeVisible();
    await expect(page.getByText(words.why, { exact: true })).toBeVisible();
    if (wrong) await expect(page.getByText("It will be asked again in this session.")).toBeVisible();
    else right += 1;
    await press(page.getByRole("button", { name: /^Next question/ }));
    await expect(page.getByRole("button", { name: /^Answer/ })).toBeVisible();
  }
  await press(page.getByRole("link", { name: "All lessons" }));
  await page.waitForURL(/practice\?/);
}

/** Has a trainer set a fault, and opens the file in the bay. */
export async function takeTrainersCase(
  page: Page,
  fault: string,
  label: string,
  press: Press,
): Promise<void> {
  await page.goto("/practice/trainer?circuit=whimbrel-four-speed");
  await page.getByLabel(/^Title/).fill("Monday's van");
  await page.getByLabel(/^Fault:/).fill("R1.link:merry");
  await press(page.getByRole("button", { name: "Check the case" }));
  await expect(page.getByRole("alert")).toBeVisible();
  await page.getByLabel(/^Fault:/).fill(fault);
  await press(page.getByRole("button", { name: "Check the case" }));
  const saved = page.waitForEvent("download");
  await press(page.getByRole("link", { name: "Save the case" }));
  const bytes = readFileSync(await (await saved).path());
  expect(bytes.toString()).not.toContain(fault);
  await page.goto(`/practice?learner=${encodeURIComponent(label)}`);
  await page
    .getByLabel("Or open a case file from a trainer")
    .setInputFiles({ name: "case.json", mimeType: "application/json", buffer: bytes });
  await press(page.getByRole("button", { name: "Open case" }));
  await page.waitForURL(/cases/);
  await settled(page);
}

/** Performs an action in the bay, and waits until its row is there. */
async function doneLine(page: Page, count: number): Promise<void> {
  await expect(page.locator("[data-act]")).toHaveCount(count);
}

/** Puts the light on a point of the drawing, and opens what is in the way. */
export async function lightOn(
  page: Page,
  point: string,
  from: "feed" | "ground",
  press: Press,
): Promise<void> {
  const before = await page.locator("[data-act]").count();
  await press(page.locator(`.airway-sheet [data-point="${point}"]`));
  const first = page.getByRole("button", { name: /^Open .* first/ });
  let count = before;
  if (await first.isVisible()) {
    await press(first);
    await doneLine(page, ++count);
  }
  await press(page.getByRole("button", { name: new RegExp(`^Light from ${from}`) }));
  await doneLine(page, ++count);
}

/** Buys and fits a part at given odds. */
export async function fit(page: Page, part: string, odds: string, press: Press): Promise<void> {
  const before = await page.locator("[data-act]").count();
  await page.getByRole("combobox", { name: "Part to replace", exact: true }).selectOption(part);
  await page.getByLabel(/How sure are you/).fill(odds);
  await press(page.getByRole("button", { name: "Buy and fit" }));
  await doneLine(page, before + 1);
}

/** Three lessons, a case won and a case lost on purpose. */
export async function learnAndPractise(page: Page, label: string, press: Press): Promise<void> {
  await page.addInitScript(() => {
    const counted = window as unknown as { sounds: number };
    counted.sounds = 0;
    window.AudioContext = class extends AudioContext {
      constructor() {
        super();
        counted.sounds += 1;
      }
    };
  });
  await practiseAs(page, label, press);
  await accessible(page);
  await takeLesson(page, "What each speed proves", press, true);
  await takeLesson(page, "The test light on either clip", press, false);
  await takeLesson(page, "The motor's current ripple", press, false);
  await expect(page.getByRole("listitem").filter({ hasText: "The motor's current ripple" })).toContainText(
    "3 of 3",
  );

  await takeTrainersCase(page, "R1.link:open", label, press);
  await expect(page.getByTestId("says")).toHaveText(/Nothing on 1, 2 and 3, normal on 4/);
  await accessible(page);
  await press(page.getByRole("button", { name: "Feel the air" }));
  await doneLine(page, 1);
  await lightOn(page, "X5:1", "feed", press);
  await press(page.getByRole("button", { name: "Listen" }));
  await doneLine(page, 4);
  const sounds = () => page.evaluate(() => (window as unknown as { sounds: number }).sounds);
  await expect.poll(sounds).toBe(1);
  await press(page.getByRole("button", { name: /^Ask Airway/ }));
  await doneLine(page, 5);
  await page.reload();
  await doneLine(page, 5);
  await fit(page, "R1", "90", press);
  await press(page.getByRole("button", { name: "Hand over to customer" }));
  await page.waitForURL(/debrief/);
  await expect(page.getByRole("heading", { name: "The repair held." })).toBeVisible();
  await expect(page.getByTestId("truth")).toContainText("resistor pack R1");
  await expect(page.locator('[data-way="own"]')).toContainText("resistor pack R1");
  await accessible(page);
  await press(page.getByRole("link", { name: "Next vehicle" }));

  const seen: { url: string; text: string }[] = [];
  page.on("response", async (response) => {
    const url = response.url();
    if (!url.includes("/debrief") && !url.includes("/assets/"))
      seen.push({ url, text: await response.text().catch(() => "") });
  });
  await page.getByLabel("Circuit").selectOption("whimbrel-four-speed");
  await page.getByLabel("Difficulty").selectOption("usual");
  await page.getByLabel("Kind of fault").selectOption("cause");
  await press(page.getByRole("button", { name: "Start case" }));
  await page.waitForURL(/cases/);
  await settled(page);
  const source = await page.content();
  await press(page.getByRole("button", { name: "Smell" }));
  await doneLine(page, 1);
  // One wire is never all of a cause and its victim, so this is lost on purpose.
  await fit(page, "W1", "5", press);
  await press(page.getByRole("button", { name: "Hand over to customer" }));
  await expect(page.getByTestId("clock")).toContainText("came back once");
  page.on("dialog", (dialog) => void dialog.accept());
  await press(page.getByRole("button", { name: "Give up" }));
  await page.waitForURL(/debrief/);
  await settled(page);
  await expect(page.getByRole("heading", { name: "Not found this time." })).toBeVisible();
  const fault = (await page.getByTestId("truth").getAttribute("data-fault")) ?? "";
  expect(fault).toMatch(/:/);
  expect(source).not.toContain(fault);
  expect(seen.length).toBeGreaterThan(2);
  for (const { url, text } of seen) {
    expect(text.includes(fault), `${url} tells ${fault}`).toBe(false);
    for (const name of fault.split("+")) expect(text.includes(name), `${url} tells ${name}`).toBe(false);
  }
}

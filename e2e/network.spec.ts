// The shop's computer and phones in its network, at two addresses of this machine: people are named, phones are paired
// over the encrypted listener, two work on one job, the connection is lost and comes back, and everything has its name.
import type { ChildProcess } from "node:child_process";
import { networkInterfaces } from "node:os";
import type { Browser } from "@playwright/test";
import { type BrowserContext, demoData, expect, type Page, startServer, stopServer, test } from "./shop";
import { standing } from "./steps";

const port = 4396;
const networkPort = 4397;
const shop = `http://127.0.0.1:${port}`;
/** An address of this machine in a network; its own if it is in none. */
const away = Object.values(networkInterfaces())
  .flatMap((all) => all ?? [])
  .find(({ family, internal }) => family === "IPv4" && !internal);
const network = `https://${away?.address ?? "127.0.0.1"}:${networkPort}`;
let server: ChildProcess;

// The second test works with the people that the first one named.
test.describe.configure({ mode: "serial" });

test.beforeAll(async () => {
  server = await startServer(port, demoData(), networkPort);
});
test.afterAll(() => stopServer(server));

const suggested = (page: Page) =>
  page.locator('[aria-labelledby="next-look"] input[name="look"]').first().inputValue();

/** Answers what the page suggests by its first word, or by the first range of its figure. */
async function answerSuggested(page: Page): Promise<void> {
  const look = await suggested(page);
  const word = page.locator('[aria-labelledby="next-look"] [data-choice]').first();
  if (await word.isVisible()) await word.click();
  else await page.locator("[data-about]").first().click();
  await expect.poll(() => suggested(page)).not.toBe(look);
}

/** Enters volts at the motor's plug, as a test of the technician's own choice. */
async function measure(page: Page, volts: string): Promise<void> {
  const test = page.locator('select[name="test"]');
  if (!(await test.isVisible())) await page.getByText("Enter another test").click();
  await test.selectOption("volts");
  await page.getByRole("combobox", { name: "Red on", exact: true }).selectOption("X2:1");
  await page.getByRole("combobox", { name: "Black on", exact: true }).selectOption("G1.-");
  await page.getByLabel("Reading (V)").fill(volts);
  await page.getByRole("button", { name: "Save reading" }).click();
}

/** Says on the shop's computer who works here. */
async function named(desk: Page): Promise<void> {
  await desk.goto(`${shop}/phones`);
  const add = async (name: string, pin: string, button: string) => {
    await desk.getByLabel("Name", { exact: true }).fill(name);
    await desk.getByLabel(/^PIN, at least/).fill(pin);
    await desk.getByRole("button", { name: button, exact: true }).click();
    await expect(desk.getByRole("button", { name: `Remove ${name}` })).toBeVisible();
  };
  await add("Front desk", "123456", "Add yourself as the owner");
  await add("Bay two", "2222", "Add");
  await add("Bay three", "3333", "Add");
}

/** Signs somebody in on the page that asks who is there. */
async function signIn(page: Page, name: string, pin: string): Promise<void> {
  await page.getByText(name, { exact: true }).click();
  await page.getByLabel("PIN").fill(pin);
  await page.getByRole("button", { name: "Sign in" }).click();
}

/** Pairs a phone by the code that the shop's computer shows. */
async function paired(phone: BrowserContext, desk: Page, name: string): Promise<Page> {
  await desk.goto(`${shop}/phones`);
  const open = desk.getByRole("button", { name: "Open Airway to the shop’s network" });
  if (await open.isVisible()) await open.click();
  await desk.getByRole("button", { name: "Make a code for one device" }).click();
  const code = await desk.locator("[data-pairing-code]").getAttribute("data-pairing-code");
  const page = await phone.newPage();
  // Whatever is asked for, a device that is not paired gets the page that pairs it.
  await page.goto(`${network}/jobs/5/probe`);
  await expect(page).toHaveURL(`${network}/pair`);
  await page.getByLabel("Code").fill(code ?? "");
  await page.getByLabel(/^Name of this device/).fill(name);
  await page.getByRole("button", { name: "Pair" }).click();
  await expect(page).toHaveURL(`${network}/sign-in?to=%2F`);
  // The shop's computer sees it without being asked.
  await expect(desk.getByRole("button", { name: `Remove ${name}` })).toBeVisible();
  return page;
}

const phoneIn = (browser: Browser): Promise<BrowserContext> =>
  browser.newContext({
    ignoreHTTPSErrors: true,
    hasTouch: true,
    viewport: { width: 390, height: 844 },
  });

/** Names beside the readings, the newest first. */
const takers = (page: Page): Promise<string[]> =>
  page
    .locator("[data-reading]")
    .evaluateAll((lines) =>
      lines.flatMap((line) => /\((Front desk|Bay two|Bay three)\)/.exec(line.textContent ?? "")?.[1] ?? []),
    );

test("a technician's phone works on the desk's job, loses the connection for twenty readings, and comes back", async ({
  page: desk,
  browser,
}) => {
  await named(desk);
  const phone = await phoneIn(browser);
  const page = await paired(phone, desk, "bay 2 phone");
  await signIn(page, "Bay two", "2222");
  await expect(page).toHaveURL(`${network}/`);

  await page.goto(`${network}/jobs/5/probe`);
  await desk.goto(`${shop}/jobs/5/probe`);
  await expect(desk.getByText("Also here: Bay two (bay 2 phone)")).toBeVisible();
  await expect(page.getByText("Also here: Front desk (the shop’s computer)")).toBeVisible();
  const before = await standing(desk);
  await answerSuggested(page);
  await expect.poll(() => standing(desk)).toBe(before + 1);
  await answerSuggested(desk);
  await expect.poll(() => standing(page)).toBe(before + 2);
  expect(await takers(desk)).toEqual(["Front desk", "Bay two"]);

  // The same test with the same figure, entered by both at once, stays two readings.
  await Promise.all([measure(page, "11.8"), measure(desk, "11.8")]);
  await expect.poll(() => standing(desk)).toBe(before + 4);
  await expect.poll(() => standing(page)).toBe(before + 4);
  const both = (await takers(desk)).slice(0, 2);
  expect([...both].sort()).toEqual(["Bay two", "Front desk"]);

  // Out of reach of the network: what is entered waits on the phone, and is stored once, in its order.
  await phone.setOffline(true);
  const entered = 20;
  for (let made = 1; made <= entered; made++) {
    // The page suggests some tests more; after those, the technician chooses.
    if (made <= 5) await answerSuggested(page);
    else await measure(page, `12.${made}`);
    await expect(page.locator("[data-waiting]")).toHaveCount(made);
  }
  expect(await standing(desk)).toBe(before + 4);
  await phone.setOffline(false);
  await expect(page.locator("[data-waiting]")).toHaveCount(0);
  await expect.poll(() => standing(page)).toBe(before + 4 + entered);
  await expect.poll(() => standing(desk)).toBe(before + 4 + entered);
  expect(await takers(desk)).toEqual([
    ...Array<string>(entered).fill("Bay two"),
    ...both,
    "Front desk",
    "Bay two",
  ]);

  // Rates, backups and people stay on the shop's computer, also when they are reached by an address.
  for (const path of ["/settings", "/phones", "/records/keeping", "/records/in"])
    expect((await page.goto(`${network}${path}`))?.status()).toBe(403);
  await page.goto(`${network}/`);
  await expect(page.getByRole("link", { name: "Jobs" }).first()).toBeVisible();
  await expect(page.getByRole("link", { name: "Settings" })).toHaveCount(0);
  expect(
    (await phone.request.post(`${network}/settings`, { form: {}, headers: { origin: network } })).status(),
  ).toBe(403);
  expect((await desk.goto(`${shop}/settings`))?.status()).toBe(200);

  // Who did what stands in the job's history.
  await desk.goto(`${shop}/jobs/5/trail`);
  await expect(desk.getByText("(Bay two)")).toHaveCount(entered + 2);

  // Removed: its next request is a stranger's.
  await desk.goto(`${shop}/phones`);
  await desk.getByRole("button", { name: "Remove bay 2 phone" }).click();
  await expect(desk.getByText("None so far.")).toBeVisible();
  await page.goto(`${network}/jobs/5/probe`);
  await expect(page).toHaveURL(`${network}/pair`);

  // Closed: nothing listens any more.
  await desk.getByRole("button", { name: "Close it" }).click();
  await expect(
    desk.getByRole("heading", { name: "Closed: only this computer can use Airway" }),
  ).toBeVisible();
  await expect(page.goto(`${network}/pair`)).rejects.toThrow(/ERR_CONNECTION/);
  await phone.close();
});

test("on a shared tablet people switch quickly, and what somebody entered after being signed out waits for them", async ({
  page: desk,
  browser,
}) => {
  await desk.goto(`${shop}/phones`);
  await expect(desk).toHaveURL(/sign-in/);
  await signIn(desk, "Front desk", "000000");
  await expect(desk.getByText("This is not the right PIN.")).toBeVisible();
  await signIn(desk, "Front desk", "123456");
  await expect(desk).toHaveURL(`${shop}/phones`);
  const phone = await phoneIn(browser);
  const page = await paired(phone, desk, "bay 3 tablet");
  await signIn(page, "Bay three", "3333");
  await page.goto(`${network}/jobs/2/probe`);
  const before = await standing(page);

  // The owner signs Bay three out; the page in the footwell stays open.
  await desk.getByRole("button", { name: "Sign Bay three out everywhere" }).click();
  await answerSuggested(page);
  await expect(page.getByText(/^Bay three is signed out\./)).toBeVisible();
  await expect(page.locator("[data-waiting]")).toHaveCount(1);

  // Bay two uses the tablet meanwhile: that entry is not theirs.
  await page.getByRole("link", { name: "Sign in" }).click();
  await signIn(page, "Bay two", "2222");
  await expect(page).toHaveURL(`${network}/jobs/2/probe`);
  await expect(
    page.getByText("One entry of Bay three waits on this device until Bay three signs in here."),
  ).toBeVisible();
  await answerSuggested(page);
  await expect.poll(() => standing(page)).toBe(before + 1);

  // Three taps and a PIN change the person.
  await page.getByRole("button", { name: "Menu" }).click();
  await page.getByRole("link", { name: "Bay two: switch" }).click();
  await signIn(page, "Bay three", "3333");
  await expect.poll(() => standing(page)).toBe(before + 2);
  expect((await takers(page)).slice(0, 2)).toEqual(["Bay three", "Bay two"]);

  // A technician at the shop's computer does not run the shop.
  await desk.goto(`${shop}/sign-in?to=/`);
  await signIn(desk, "Bay two", "2222");
  await expect(desk.getByRole("link", { name: "Bay two: switch" })).toBeVisible();
  await expect(desk.getByRole("link", { name: "Settings" })).toHaveCount(0);
  expect((await desk.goto(`${shop}/records/keeping`))?.status()).toBe(403);
  await phone.close();
});

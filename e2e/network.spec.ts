// The shop's computer and a phone in its network, at two addresses of this machine: the phone is paired over the
// encrypted listener, both work on one job, the connection is lost and comes back, and the phone is removed.
import type { ChildProcess } from "node:child_process";
import { networkInterfaces } from "node:os";
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

/** Pairs a phone by the code that the shop's computer shows. */
async function paired(phone: BrowserContext, desk: Page): Promise<Page> {
  await desk.goto(`${shop}/phones`);
  await desk.getByRole("button", { name: "Open Airway to the shop’s network" }).click();
  await desk.getByRole("button", { name: "Make a code for one device" }).click();
  const code = await desk.locator("[data-pairing-code]").getAttribute("data-pairing-code");
  const page = await phone.newPage();
  // Whatever is asked for, a device that is not paired gets the page that pairs it.
  await page.goto(`${network}/jobs/5/probe`);
  await expect(page).toHaveURL(`${network}/pair`);
  await page.getByLabel("Code").fill(code ?? "");
  await page.getByLabel(/^Name of this device/).fill("bay 2 phone");
  await page.getByRole("button", { name: "Pair" }).click();
  await expect(page).toHaveURL(`${network}/`);
  // The shop's computer sees it without being asked.
  await expect(desk.getByText("bay 2 phone")).toBeVisible();
  return page;
}

test("a phone is paired, works on the same job, loses the connection, comes back, and is removed", async ({
  page: desk,
  browser,
}) => {
  const phone = await browser.newContext({
    ignoreHTTPSErrors: true,
    hasTouch: true,
    viewport: { width: 390, height: 844 },
  });
  const page = await paired(phone, desk);

  await page.goto(`${network}/jobs/5/probe`);
  await desk.goto(`${shop}/jobs/5/probe`);
  const before = await standing(desk);
  await answerSuggested(page);
  await expect.poll(() => standing(desk)).toBe(before + 1);

  // Out of reach of the network: what is entered waits on the phone, and is stored once, in its order.
  await phone.setOffline(true);
  const entered = 5;
  for (let made = 1; made <= entered; made++) {
    await answerSuggested(page);
    await expect(page.locator("[data-waiting]")).toHaveCount(made);
  }
  expect(await standing(desk)).toBe(before + 1);
  await phone.setOffline(false);
  await expect(page.locator("[data-waiting]")).toHaveCount(0);
  await expect.poll(() => standing(page)).toBe(before + 1 + entered);
  await expect.poll(() => standing(desk)).toBe(before + 1 + entered);

  // Rates, backups and pairing stay on the shop's computer, also when they are reached by a link.
  for (const path of ["/settings", "/phones", "/records/keeping", "/records/in"])
    expect((await page.goto(`${network}${path}`))?.status()).toBe(403);
  await page.goto(`${network}/`);
  await page.getByRole("link", { name: "Settings" }).click();
  await expect(page.getByRole("heading", { name: "This is done on the shop’s own computer." })).toBeVisible();
  expect(
    (await phone.request.post(`${network}/settings`, { form: {}, headers: { origin: network } })).status(),
  ).toBe(403);
  expect((await desk.goto(`${shop}/settings`))?.status()).toBe(200);

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

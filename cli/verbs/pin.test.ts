import { addPerson, allPeople, checkPin } from "@db/people/people.server";
import { isSignedIn, startSession } from "@db/people/sessions.server";
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { expect, test } from "@jest/globals";
import { airway } from "../testing/airway";

useEmptyDataFolder();

test("somebody who forgot their PIN gets another, and is signed out everywhere", async () => {
  await addPerson("Front desk", "owner", "123456");
  const id = allPeople()[0]?.id ?? "";
  startSession(id, "tablet");
  const { stdout, status } = await airway(["pin", "front desk", "--text"]);
  expect(status).toBe(0);
  const pin = /^The new PIN of Front desk is (\d{8})\.$/m.exec(stdout)?.[1] ?? "";
  expect(await checkPin(id, pin)).toBe(true);
  expect(isSignedIn(id, "tablet")).toBe(false);
});

test("a name that nobody has is refused with the names there are", async () => {
  await addPerson("Front desk", "owner", "123456");
  const { stderr, status } = await airway(["pin", "Bay nine"]);
  expect(status).toBe(2);
  expect(stderr).toContain('nobody here is called "Bay nine"; there is Front desk');
});

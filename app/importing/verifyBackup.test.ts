import { readFileSync, writeFileSync } from "node:fs";
import { backUp, backupFile, newestBackup, newestVerified } from "@db/keeping/backup.server";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { troublesNow } from "../shell/log.server";
import { closeDemoShop, openDemoShop } from "../testing/demoShop";
import { verifyBackup } from "./verifyBackup.server";

beforeEach(() => openDemoShop());
afterEach(closeDemoShop);

const at = (minute: number) => new Date(Date.UTC(2026, 10, 24, 11, minute));

test("a backup counts as verified only after it was restored into a temporary file", async () => {
  const backup = await backUp(at(0));
  expect(newestBackup(at(1))?.name).toBe(backup.name);
  expect(newestVerified(at(1))).toBeNull();
  await verifyBackup(backup);
  expect(newestVerified(at(1))).toMatchObject({ name: backup.name, isVerified: true });
  // One dated in the future does not count.
  expect(newestVerified(new Date(at(0).getTime() - 1))).toBeNull();
});

test("a backup with a flipped bit is never verified, and every page says so", async () => {
  const backup = await backUp(at(0));
  const file = backupFile(backup.name) ?? "";
  const bytes = readFileSync(file);
  const middle = Math.floor(bytes.length / 2);
  bytes[middle] = (bytes[middle] ?? 0) ^ 1;
  writeFileSync(file, bytes);
  await verifyBackup(backup);
  expect(newestVerified(at(1))).toBeNull();
  expect(troublesNow()[0]?.words).toContain(`${backup.name} cannot be restored`);
});

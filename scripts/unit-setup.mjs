// Before the unit tests: a folder in which their suites share what is slow to make; it goes when they are done.
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

export default function setUp() {
  process.env.AIRWAY_TEST_SHARED = mkdtempSync(join(tmpdir(), "airway-unit-"));
}

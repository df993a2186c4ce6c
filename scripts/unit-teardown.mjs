import { rmSync } from "node:fs";

export default function tearDown() {
  const shared = process.env.AIRWAY_TEST_SHARED;
  if (shared) rmSync(shared, { recursive: true, force: true });
}

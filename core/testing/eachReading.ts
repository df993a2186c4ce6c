import type { Reading } from "../predict/reading";

const points = { red: "F7.in", black: "G1.-" };

/** Readings of every test; some tests have more than one. */
export const eachReading: readonly Reading[] = [
  { test: "airflow", key: "run", setting: "2", seen: "weak" },
  { test: "light", probe: "X5:2", clip: "G1.+", seen: "flickers" },
  { test: "volts", ...points, volts: -0.01 },
  { test: "ohms", ...points, ohms: null },
  { test: "ohms", ...points, ohms: 0.8 },
  { test: "amps", around: "W9", amps: 17.96 },
  { test: "look", at: "X5", seen: "melted" },
  { test: "spin", at: "M1", seen: "stiff" },
  { test: "listen", seen: "rumble", followsSpeed: true },
  { test: "listen", seen: "quiet", followsSpeed: false },
  { test: "listen", ventCovered: true, seen: "whistle" },
  { test: "smell", seen: "burnt" },
  { test: "history", of: "damp", seen: "yes" },
  { test: "tap", at: "M1", seen: "starts" },
  { test: "lampload", lampFor: "F7", seen: "dark" },
  { test: "swap", at: "K3", seen: "fixed" },
  { test: "ripple", at: "M1", seen: "uneven" },
];

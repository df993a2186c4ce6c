// npm run bench:records: board, records, statistics and learned counts with fifty thousand closed jobs of three works
// each, in a data folder of its own.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chanceFrom } from "@core/chance/chance";
import { closeDatabase, database } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { PlainSqlite } from "@db/keeping/plainSqlite.server";
import { shopBundle } from "@db/keeping/shopBundle.server";
import { closeJob, setCounted } from "@db/repositories/closures.server";
import { partsFitted } from "@db/repositories/jobs.server";
import { loader as board } from "../app/routes/board";
import { loader as figures } from "../app/routes/figures";
import { loader as learnt } from "../app/routes/learnt";
import { loader as records } from "../app/routes/records";
import { loader as vehicle } from "../app/routes/vehicle";

const count = Number(process.env.AIRWAY_JOBS ?? 50_000);
const rounds = 60;
const folder = mkdtempSync(join(tmpdir(), "airway-records-bench-"));
process.env.AIRWAY_DATA = folder;
process.env.AIRWAY_ZONE = "UTC";
await loadDemoWorld(await database(), join(process.cwd(), "demo"), new Date());
await closeDatabase();

const chance = chanceFrom(11);
const pick = <T>(of: readonly T[]): T => of[Math.floor(chance.uniform() * of.length)] as T;
const kinds = ["link", "motor", "relay", "fuse", "pin", "module", "element", "wire"];
const modes = ["open", "high", "tight", "blown", "dead", "loose"];
const families = ["resistor ground", "resistor feed", "chopping ground", "linear feed", "switch feed"];
const symptoms = ["dead", "some-speeds", "weak", "never-stops", "noise", "other"];
const words = [
  "only four works",
  "squeals when cold",
  "dead since the rain",
  "weak on all",
  "comes and goes",
];
const own = await PlainSqlite.open(databaseFile(folder));
const began = performance.now();
const circuits = await own.all("SELECT id, circuitId FROM vehicles");
await own.run("BEGIN");
const rows = Array.from({ length: count }, (_, i) => {
  const at = new Date(Date.now() - (count - i) * 900_000)
    .toISOString()
    .replace("T", " ")
    .replace("Z", " +00:00");
  return {
    id: 1000 + i,
    at,
    vehicle: pick(circuits),
    words: `${pick(words)}, case ${i}`,
    held: chance.uniform() < 0.93,
  };
});
await own.each(
  "INSERT INTO jobs (id, vehicleId, circuitId, formToken, words, stage, fitted, found, fittedAt, closedAt, createdAt) VALUES (?, ?, ?, ?, ?, 'closed', '[\"R1\"]', ?, ?, ?, ?)",
  rows.map(({ id, at, vehicle: car, words: said }) => [
    id,
    car.id ?? 1,
    car.circuitId ?? "",
    `bench-${id}`,
    said,
    `found ${pick(kinds)} ${pick(modes)}, replaced`,
    at,
    at,
    at,
  ]),
);
await own.each(
  "INSERT INTO fittings (jobId, parts, p, state, looks, minutes, fittedAt, outcome, outcomeAt) VALUES (?, '[\"R1\"]', ?, 'settled', 3, 9, ?, ?, ?)",
  rows.map(({ id, at, held }) => [id, 0.5 + 0.5 * chance.uniform(), at, held ? "held" : "came-back", at]),
);
await own.each(
  "INSERT INTO closures (jobId, fault, kind, mode, family, cause, symptom, looks, minutes, chartMinutes, repairKind, repairMinutes, totalMinor, closedAt, counted, body) VALUES (?, 'R1.link:open', ?, ?, ?, ?, ?, 3, ?, ?, ?, ?, ?, ?, 1, ?)",
  rows.map(({ id, at }) => [
    id,
    pick(kinds),
    pick(modes),
    pick(families),
    pick(["found", "not-found", "none"]),
    pick(symptoms),
    3 + 12 * chance.uniform(),
    8 + 30 * chance.uniform(),
    pick(["resistor", "motor", "relay"]),
    10 + 40 * chance.uniform(),
    Math.floor(4000 + 30_000 * chance.uniform()),
    at,
    JSON.stringify({ found: "link open", fault: "R1.link:open", parts: ["R1"], cause: "none", learn: true }),
  ]),
);
// Three works each, as a real visit has: a part, its plug, and something carried over.
const works = [
  ["R1", "resistor pack R1", "resistor", "renewed"],
  ["X5", "resistor plug X5", "connector", "spliced"],
  [null, "gasket of resistor pack R1", "unknown", "carried-over"],
] as const;
await own.each(
  "INSERT INTO works (id, jobId, round, part, what, kind, done, state, body, madeAt) VALUES (?, ?, 1, ?, ?, ?, ?, 'done', ?, ?)",
  rows.flatMap(({ id, at }) =>
    works.map(([part, what, kind, done], place) => [
      `bench-${id}-${place}`,
      id,
      part,
      what,
      kind,
      done,
      JSON.stringify({ plannedMinutes: 10, priceMinor: 3000 }),
      at,
    ]),
  ),
);
await own.run("COMMIT");
await own.close();
process.stdout.write(
  `${count} closed jobs with three works each made in ${((performance.now() - began) / 1000).toFixed(0)} s\n`,
);

async function timed(title: string, work: () => Promise<unknown>): Promise<void> {
  const times: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  const [first = 0] = times;
  times.sort((a, b) => a - b);
  process.stdout.write(
    `${title}: first ${first.toFixed(0)} ms, median ${(times[Math.floor(rounds / 2)] ?? 0).toFixed(1)} ms, 95th percentile ${(times[Math.ceil(0.95 * rounds) - 1] ?? 0).toFixed(1)} ms, worst ${(times.at(-1) ?? 0).toFixed(1)} ms\n`,
  );
}
const ask = (query: string) =>
  ({ request: new Request(`http://127.0.0.1/x?${query}`), params: { id: "1" } }) as never;
const memory = (): string => `${Math.round(process.memoryUsage().rss / 1e6)} MB`;

await database();
// The line of each open job is worked out in the background after the first answer, and stored.
const firstLines = performance.now();
while ((await board()).refreshing) await new Promise((resolve) => setTimeout(resolve, 50));
process.stdout.write(
  `board with every circuit made ready for the first time: ${Math.round(performance.now() - firstLines)} ms\n`,
);
const answers: number[] = [];
for (let round = 0; round < rounds; round++) {
  const from = performance.now();
  await board();
  answers.push(performance.now() - from);
}
answers.sort((a, b) => a - b);
process.stdout.write(
  `board, its answer: median ${(answers[Math.floor(rounds / 2)] ?? 0).toFixed(1)} ms, worst ${(answers.at(-1) ?? 0).toFixed(1)} ms\n`,
);
process.stdout.write(`memory ${memory()}\n`);
for (const query of [
  "",
  "words=squeals",
  "words=case+4999",
  "words=ferry+link&outcome=held",
  "fault=link+open&part=motor",
  "order=money&down=no&page=400",
  "order=vehicle",
  "outcome=came-back",
])
  await timed(`records ${query || "all"}`, () => records(ask(query)));
await timed("a vehicle's history", () => vehicle(ask("")));
await timed("figures", () => figures(ask("")));
await timed("figures of a family", () => figures(ask("family=resistor+ground")));
await timed("what was learnt", () => learnt(ask("circuit=whimbrel-four-speed")));
process.stdout.write(`memory ${memory()}\n`);
const bundleFrom = performance.now();
const bundle = await shopBundle();
process.stdout.write(
  `the whole shop as one bundle: ${((performance.now() - bundleFrom) / 1000).toFixed(1)} s, ${(bundle.length / 1e6).toFixed(1)} MB, memory ${memory()}\n`,
);
let job = 0;
await timed("closing a job, the learning with it", async () => {
  const id = 1 + (job++ % 16);
  await partsFitted(id, ["R1"], { p: 0.97, state: "settled", looks: 3, minutes: 8 }, new Date());
  await closeJob(id, {
    closure: { found: "link open", fault: "R1.link:open", parts: ["R1"], cause: "none", learn: true },
    kind: "link",
    mode: "open",
    family: "resistor ground",
    symptom: "dead",
    looks: 3,
    minutes: 8,
    chartMinutes: null,
    repairKind: "resistor",
    repairMinutes: 12,
    totalMinor: 9000,
    closedAt: new Date(),
  });
});
await timed("taking a lesson back", () => setCounted(1000 + job++, false));
process.stdout.write(`memory ${memory()}\n`);
await closeDatabase();
rmSync(folder, { recursive: true, force: true });
process.exit(0);

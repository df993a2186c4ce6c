import { parseCircuit } from "@core/circuit/parseCircuit";
import { repairKind } from "@core/diagnose/verdict/stopping";
import { usualWork } from "@core/workList/proposedWork";
import { type QueryInterface, QueryTypes } from "sequelize";
import { z } from "zod";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";
const told = "json_object('what', new.what, 'done', new.done, 'state', new.state, 'round', new.round";

/** Lines of work in the audit trail. */
const auditTriggers = [
  ["INSERT", "work", `${told})`, ""],
  ["UPDATE OF done, state, body", "work-changed", `${told})`, "AND old.struckAt IS new.struckAt"],
  [
    "UPDATE OF struckAt",
    "work-struck",
    `${told}, 'at', new.struckAt)`,
    "AND old.struckAt IS NOT new.struckAt",
  ],
].map(
  ([when, what, about, changed], place) =>
    `CREATE TRIGGER auditWork${place} AFTER ${when} ON works
     WHEN NOT EXISTS (SELECT 1 FROM importing) ${changed}
     BEGIN INSERT INTO events (jobId, at, what, about) VALUES (new.jobId, ${now}, '${what}', ${about}); END`,
);

const worked = (jobId: string): string =>
  `(SELECT COALESCE(group_concat(what || ' ' || kind || ' ' || COALESCE(part, ''), ' '), '')
    FROM works WHERE jobId = ${jobId} AND struckAt IS NULL)`;

/** A job is found by everything that was worked on, in any round. */
const searching = [
  "DROP TRIGGER searchWords",
  `CREATE TRIGGER searchWords AFTER UPDATE OF words, found, fitted ON jobs BEGIN
     UPDATE jobSearch SET words = new.words, found = COALESCE(new.found, ''),
       parts = trim(COALESCE(new.fitted, '') || ' ' || ${worked("new.id")})
     WHERE rowid = new.id; END`,
  ...["INSERT", "UPDATE"].map(
    (when) => `CREATE TRIGGER searchWork${when} AFTER ${when} ON works BEGIN
     UPDATE jobSearch
       SET parts = trim((SELECT COALESCE(fitted, '') FROM jobs WHERE id = new.jobId) || ' ' || ${worked("new.jobId")})
     WHERE rowid = new.jobId; END`,
  ),
];

const counts = (row: "old" | "new", by: string): string =>
  `INSERT INTO faultCounts (family, kind, mode, n)
   SELECT ${row}.family, ${row}.kind, ${row}.mode, ${by} WHERE ${row}.counted = 1
   ON CONFLICT (family, kind, mode) DO UPDATE SET n = n + excluded.n;`;

/** Further faults of one job count as its main one does. */
const learning = [
  `CREATE TRIGGER learntToo AFTER INSERT ON closureFaults BEGIN ${counts("new", "1")} END`,
  `CREATE TRIGGER unlearntToo AFTER DELETE ON closureFaults BEGIN ${counts("old", "-1")} END`,
  `CREATE TRIGGER relearntToo AFTER UPDATE OF counted ON closureFaults
     BEGIN ${counts("old", "-1")} ${counts("new", "1")} END`,
  `CREATE TRIGGER closureGone AFTER DELETE ON closures
     BEGIN DELETE FROM closureFaults WHERE jobId = old.jobId; END`,
  `CREATE TRIGGER closureCounted AFTER UPDATE OF counted ON closures
     BEGIN UPDATE closureFaults SET counted = new.counted WHERE jobId = new.jobId; END`,
];

const fitted = z.array(
  z.object({
    jobId: z.number(),
    parts: z.string(),
    outcome: z.string(),
    fittedAt: z.string(),
    circuitId: z.string(),
  }),
);

/** Every part fitted or ordered so far becomes a line of its round; a round ends with a failed check. */
async function linesOfFittings(context: QueryInterface): Promise<object[]> {
  const ask = (sql: string, replacements = {}) =>
    context.sequelize.query(sql, { type: QueryTypes.SELECT, replacements });
  const rows = fitted.parse(
    await ask(
      `SELECT f.jobId, f.parts, f.outcome, f.fittedAt, j.circuitId FROM fittings f JOIN jobs j ON j.id = f.jobId
       WHERE f.outcome <> 'withdrawn'
       UNION ALL
       SELECT j.id, j.fitted, CASE j.stage WHEN 'part-awaited' THEN 'ordered' ELSE 'held' END,
         COALESCE(j.fittedAt, j.createdAt), j.circuitId
       FROM jobs j WHERE j.fitted IS NOT NULL AND j.stage <> 'probing'
         AND NOT EXISTS (SELECT 1 FROM fittings f WHERE f.jobId = j.id AND f.outcome <> 'withdrawn')
       ORDER BY 1, 4`,
    ),
  );
  const circuits = new Map<string, ReturnType<typeof parseCircuit>>();
  const rounds = new Map<number, number>();
  const lines: object[] = [];
  for (const { jobId, parts, outcome, fittedAt, circuitId } of rows) {
    if (!circuits.has(circuitId)) {
      const [row] = z
        .array(z.object({ body: z.string() }))
        .parse(await ask("SELECT body FROM circuits WHERE id = :circuitId", { circuitId }));
      circuits.set(circuitId, parseCircuit(JSON.parse(row?.body ?? "null")));
    }
    const circuit = circuits.get(circuitId);
    const round = rounds.get(jobId) ?? 1;
    rounds.set(jobId, outcome === "failed" ? round + 1 : round);
    for (const part of z.array(z.string()).parse(JSON.parse(parts)))
      lines.push({
        id: `${outcome === "ordered" ? "ordered" : "fitted"}-${jobId}-${round}-${part}`,
        jobId,
        round,
        part,
        what: part,
        kind: circuit?.ok ? repairKind(circuit.value, part) : "unknown",
        done: circuit?.ok ? usualWork(circuit.value, part) : "renewed",
        state: outcome === "ordered" ? "planned" : "done",
        body: "{}",
        madeAt: fittedAt,
      });
  }
  return lines;
}

/** The work list of a job, round by round, and the further faults a closing found. Nothing stored before is changed. */
export const works = {
  name: "016-works",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const job = () => ({ ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" });
    await context.createTable("works", {
      id: named(),
      jobId: job(),
      round: number(),
      part: maybeText(),
      what: text(),
      kind: text(),
      done: text(),
      state: text(),
      body: text(),
      /** Who did it, once the shop knows its people. */
      doneBy: maybeText(),
      madeAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("works", ["jobId"]);
    await context.addIndex("works", ["kind", "jobId"]);
    await context.createTable("closureFaults", {
      id: named(),
      jobId: job(),
      part: text(),
      fault: text(),
      kind: text(),
      mode: text(),
      family: text(),
      counted: number(),
    });
    await context.addIndex("closureFaults", ["jobId"]);
    await context.addIndex("closureFaults", ["kind", "mode", "jobId"]);
    const lines = await linesOfFittings(context);
    // SQLite takes a limited number of values in one statement.
    for (let from = 0; from < lines.length; from += 500)
      await context.bulkInsert("works", lines.slice(from, from + 500));
    await context.sequelize.query(
      `UPDATE jobSearch SET parts = trim(parts || ' ' || ${worked("jobSearch.rowid")})
       WHERE rowid IN (SELECT jobId FROM works)`,
    );
    for (const sql of [...auditTriggers, ...searching, ...learning]) await context.sequelize.query(sql);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const name of ["closureGone", "closureCounted", "searchWords"])
      await context.sequelize.query(`DROP TRIGGER ${name}`);
    await context.dropTable("closureFaults");
    await context.dropTable("works");
    await context.sequelize.query(`CREATE TRIGGER searchWords AFTER UPDATE OF words, found, fitted ON jobs BEGIN
     UPDATE jobSearch SET words = new.words, found = COALESCE(new.found, ''), parts = COALESCE(new.fitted, '')
     WHERE rowid = new.id; END`);
  },
};

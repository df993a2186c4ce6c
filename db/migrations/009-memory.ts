import type { QueryInterface } from "sequelize";
import {
  counted,
  maybeMoment,
  maybeNumber,
  maybeReal,
  maybeText,
  moment,
  number,
  real,
  text,
} from "../columns";

const job = () => ({ ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" });

/** What the audit trail records: the table, the time, the name of the event, and its details. */
const noted: readonly (readonly [table: string, when: string, what: string, about: string])[] = [
  ["jobs", "INSERT", "opened", "json_object('words', new.words)"],
  ["jobs", "UPDATE OF stage", "stage", "json_object('from', old.stage, 'to', new.stage)"],
  ["jobs", "UPDATE OF words", "words", "json_object('from', old.words, 'to', new.words)"],
  ["jobs", "UPDATE OF circuitId", "circuit", "json_object('from', old.circuitId, 'to', new.circuitId)"],
  ["jobs", "UPDATE OF deletedAt", "deleted", "json_object('at', new.deletedAt)"],
  ["readings", "INSERT", "reading", "json_object('number', new.number, 'reading', json(new.body))"],
  [
    "readings",
    "UPDATE OF struckAt",
    "reading-struck",
    "json_object('number', new.number, 'at', new.struckAt)",
  ],
  ["notes", "INSERT", "note", "json_object('words', new.words)"],
  ["notes", "UPDATE OF struckAt", "note-struck", "json_object('words', new.words, 'at', new.struckAt)"],
  ["traces", "INSERT", "recording", "json_object('id', new.id)"],
  ["traces", "UPDATE OF struckAt", "recording-struck", "json_object('id', new.id, 'at', new.struckAt)"],
  [
    "proofs",
    "INSERT",
    "proof",
    "json_object('step', new.step, 'finding', json(new.body), 'judged', new.judged)",
  ],
  ["fittings", "INSERT", "fitted", "json_object('parts', json(new.parts), 'p', new.p)"],
  [
    "fittings",
    "UPDATE OF outcome",
    "fitting",
    "json_object('parts', json(new.parts), 'outcome', new.outcome)",
  ],
  ["estimates", "INSERT", "estimate", "json_object('kind', new.kind, 'number', new.number)"],
  [
    "estimates",
    "UPDATE OF approvedAt",
    "approved",
    "json_object('number', new.number, 'by', new.approvedBy)",
  ],
  ["closures", "INSERT", "closed", "json_object('fault', new.fault)"],
  ["closures", "UPDATE OF counted", "counted", "json_object('counted', new.counted)"],
  ["closures", "DELETE", "reopened", "json_object('fault', old.fault)"],
];

/** The time in the format used elsewhere. */
const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";

const auditTriggers = noted.map(([table, when, what, about], place) => {
  const row = when === "DELETE" ? "old" : "new";
  const column = /UPDATE OF (\w+)/.exec(when)?.[1];
  const changed = column ? `AND old.${column} IS NOT new.${column}` : "";
  return `CREATE TRIGGER audit${place} AFTER ${when} ON ${table}
    WHEN NOT EXISTS (SELECT 1 FROM importing) ${changed}
    BEGIN INSERT INTO events (jobId, at, what, about)
      VALUES (${row}.${table === "jobs" ? "id" : "jobId"}, ${now}, '${what}', ${about}); END`;
});

/** Nothing in the trail can be changed or removed. */
const sealed = ["UPDATE", "DELETE"].map(
  (when) =>
    `CREATE TRIGGER events${when} BEFORE ${when} ON events
     BEGIN SELECT RAISE(ABORT, 'the audit trail is not changed'); END`,
);

const counts = (row: "old" | "new", by: string): string =>
  `INSERT INTO faultCounts (family, kind, mode, n)
   SELECT ${row}.family, ${row}.kind, ${row}.mode, ${by} WHERE ${row}.counted = 1
   ON CONFLICT (family, kind, mode) DO UPDATE SET n = n + excluded.n;`;

const minutesSums = (row: "old" | "new", by: string): string =>
  `INSERT INTO repairSums (kind, jobs, minutes)
   SELECT ${row}.repairKind, ${by}, ${by} * ${row}.repairMinutes WHERE ${row}.counted = 1 AND ${row}.repairMinutes IS NOT NULL
   ON CONFLICT (kind) DO UPDATE SET jobs = jobs + excluded.jobs, minutes = minutes + excluded.minutes;`;
const learns = (row: "old" | "new", by: string): string => `${counts(row, by)} ${minutesSums(row, by)}`;

/** The shop's counts change by one with every closing; they are never counted again. */
const learning = [
  `CREATE TRIGGER learnt AFTER INSERT ON closures BEGIN ${learns("new", "1")} END`,
  `CREATE TRIGGER unlearnt AFTER DELETE ON closures BEGIN ${learns("old", "-1")} END`,
  `CREATE TRIGGER relearnt AFTER UPDATE OF counted, family, kind, mode, repairKind, repairMinutes ON closures
     BEGIN ${learns("old", "-1")} ${learns("new", "1")} END`,
];

const notesOf = (row: string): string =>
  `(SELECT COALESCE(group_concat(words, ' '), '') FROM notes WHERE jobId = ${row}.jobId AND struckAt IS NULL)`;

/** The search text, stored with the jobs. */
const searching = [
  `CREATE VIRTUAL TABLE jobSearch USING fts5(vehicle, circuit, words, found, parts, notes, tokenize = 'unicode61')`,
  `CREATE TRIGGER searchJob AFTER INSERT ON jobs BEGIN
     INSERT INTO jobSearch (rowid, vehicle, circuit, words, found, parts, notes)
     SELECT new.id, v.label || ' ' || v.model, c.title, new.words, COALESCE(new.found, ''), COALESCE(new.fitted, ''), ''
     FROM vehicles v, circuits c WHERE v.id = new.vehicleId AND c.id = new.circuitId; END`,
  `CREATE TRIGGER searchWords AFTER UPDATE OF words, found, fitted ON jobs BEGIN
     UPDATE jobSearch SET words = new.words, found = COALESCE(new.found, ''), parts = COALESCE(new.fitted, '')
     WHERE rowid = new.id; END`,
  `CREATE TRIGGER searchNote AFTER INSERT ON notes BEGIN
     UPDATE jobSearch SET notes = ${notesOf("new")} WHERE rowid = new.jobId; END`,
  `CREATE TRIGGER searchStruck AFTER UPDATE OF struckAt ON notes BEGIN
     UPDATE jobSearch SET notes = ${notesOf("new")} WHERE rowid = new.jobId; END`,
  `INSERT INTO jobSearch (rowid, vehicle, circuit, words, found, parts, notes)
     SELECT j.id, v.label || ' ' || v.model, c.title, j.words, COALESCE(j.found, ''), COALESCE(j.fitted, ''),
       (SELECT COALESCE(group_concat(words, ' '), '') FROM notes WHERE jobId = j.id AND struckAt IS NULL)
     FROM jobs j JOIN vehicles v ON v.id = j.vehicleId JOIN circuits c ON c.id = j.circuitId`,
];

/**
 * Final checks by any instrument, parts fitted and whether they held, closures, learned counts, and the audit trail.
 */
export const memory = {
  name: "009-memory",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    for (const column of ["comebackOf INTEGER REFERENCES jobs (id)", "deletedAt DATETIME"])
      await sequelize.query(`ALTER TABLE jobs ADD COLUMN ${column}`);
    await sequelize.query("ALTER TABLE proofs ADD COLUMN body TEXT NOT NULL DEFAULT ''");
    await sequelize.query("ALTER TABLE proofs ADD COLUMN judged TEXT NOT NULL DEFAULT 'right'");
    await sequelize.query(`UPDATE proofs SET body = json_object('by', 'airflow', 'seen', seen),
      judged = CASE WHEN seen = expected THEN 'right' WHEN seen = 'strong' OR expected = 'none' THEN 'too-high' ELSE 'too-low' END`);
    for (const column of ["expected", "seen"])
      await sequelize.query(`ALTER TABLE proofs DROP COLUMN ${column}`);
    await context.createTable("fittings", {
      id: counted(),
      jobId: job(),
      parts: text(),
      p: real(),
      state: text(),
      looks: number(),
      minutes: real(),
      fittedAt: moment(),
      outcome: text(),
      outcomeAt: maybeMoment(),
    });
    await context.addIndex("fittings", ["jobId"]);
    await context.addIndex("fittings", ["outcome", "p", "jobId"]);
    await context.createTable("closures", {
      jobId: { ...job(), primaryKey: true },
      fault: text(),
      kind: text(),
      mode: text(),
      family: text(),
      cause: text(),
      symptom: text(),
      looks: number(),
      minutes: real(),
      chartMinutes: maybeReal(),
      repairKind: text(),
      repairMinutes: maybeReal(),
      totalMinor: maybeNumber(),
      closedAt: moment(),
      counted: number(),
      body: text(),
    });
    // Each statistic is read from an index of its own, not from the closures.
    await context.addIndex("closures", ["closedAt", "totalMinor", "jobId"]);
    await context.addIndex("closures", ["family", "symptom", "kind", "jobId"]);
    await context.addIndex("closures", ["symptom", "minutes", "chartMinutes", "jobId"]);
    await context.addIndex("closures", ["cause", "jobId"]);
    await context.addIndex("closures", ["repairKind"]);
    await context.addIndex("jobs", ["stage", "createdAt"]);
    await context.addIndex("jobs", ["createdAt"]);
    await context.addIndex("jobs", ["closedAt"]);
    await context.addIndex("jobs", ["vehicleId"]);
    await sequelize.query("CREATE INDEX jobs_deleted ON jobs (id) WHERE deletedAt IS NOT NULL");
    await context.addIndex("jobs", ["comebackOf"]);
    await sequelize.query(
      "CREATE TABLE faultCounts (family TEXT NOT NULL, kind TEXT NOT NULL, mode TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (family, kind, mode)) WITHOUT ROWID",
    );
    await sequelize.query(
      "CREATE TABLE repairSums (kind TEXT NOT NULL PRIMARY KEY, jobs INTEGER NOT NULL, minutes FLOAT NOT NULL) WITHOUT ROWID",
    );
    await context.createTable("events", {
      id: counted(),
      jobId: number(),
      at: text(),
      what: text(),
      about: maybeText(),
    });
    await context.addIndex("events", ["jobId"]);
    await context.createTable("importing", { id: counted() });
    for (const statement of [...auditTriggers, ...sealed, ...learning, ...searching])
      await sequelize.query(statement);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    const triggers = [
      ...auditTriggers.map((_, place) => `audit${place}`),
      ...["eventsUPDATE", "eventsDELETE", "learnt", "unlearnt", "relearnt"],
      ...["searchJob", "searchWords", "searchNote", "searchStruck"],
    ];
    for (const name of triggers) await sequelize.query(`DROP TRIGGER ${name}`);
    for (const table of [
      "jobSearch",
      "importing",
      "events",
      "repairSums",
      "faultCounts",
      "closures",
      "fittings",
    ])
      await context.dropTable(table);
    await context.removeIndex("jobs", ["stage", "createdAt"]);
    await context.removeIndex("jobs", ["createdAt"]);
    await context.removeIndex("jobs", ["closedAt"]);
    await context.removeIndex("jobs", ["vehicleId"]);
    await sequelize.query("DROP INDEX jobs_deleted");
    await context.removeIndex("jobs", ["comebackOf"]);
    for (const column of ["comebackOf", "deletedAt"])
      await sequelize.query(`ALTER TABLE jobs DROP COLUMN ${column}`);
    await sequelize.query("ALTER TABLE proofs ADD COLUMN expected TEXT NOT NULL DEFAULT 'normal'");
    await sequelize.query("ALTER TABLE proofs ADD COLUMN seen TEXT NOT NULL DEFAULT 'normal'");
    await sequelize.query("DELETE FROM proofs WHERE json_extract(body, '$.by') <> 'airflow'");
    await sequelize.query("UPDATE proofs SET seen = json_extract(body, '$.seen')");
    for (const column of ["body", "judged"])
      await sequelize.query(`ALTER TABLE proofs DROP COLUMN ${column}`);
  },
};

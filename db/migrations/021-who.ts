import type { QueryInterface } from "sequelize";
import { counted, maybeText, text } from "../columns";

const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";
const acting = "(SELECT who FROM acting)";
const known = `NOT EXISTS (SELECT 1 FROM importing) AND ${acting} IS NOT NULL`;

/** Tables whose rows say who made them. */
const made = ["readings", "seenReadings"];

/** Whoever writes is in `acting`: see `Database.write`. Every line of the audit trail, and what is entered, gets that name. */
const naming = [
  `CREATE TRIGGER eventWho AFTER INSERT ON events WHEN ${known}
     BEGIN INSERT INTO eventPeople (eventId, who) VALUES (new.id, ${acting}); END`,
  ...made.map(
    (table) => `CREATE TRIGGER ${table}Who AFTER INSERT ON ${table} WHEN new.takenBy IS NULL AND ${known}
     BEGIN UPDATE ${table} SET takenBy = ${acting} WHERE id = new.id; END`,
  ),
  ...[
    ["INSERT", "new.doneBy IS NULL"],
    ["UPDATE OF state", "old.state <> new.state"],
  ].map(
    (
      [when, which],
      place,
    ) => `CREATE TRIGGER workWho${place} AFTER ${when} ON works WHEN ${which} AND ${known}
     BEGIN UPDATE works SET doneBy = CASE new.state WHEN 'done' THEN ${acting} END WHERE id = new.id; END`,
  ),
];

/** Ticks of a removal in the audit trail. */
const ticks = [
  ["INSERT", "tick", ""],
  ["UPDATE OF struckAt", "tick-struck", "AND old.struckAt IS NOT new.struckAt"],
].map(
  ([when, what, changed], place) => `CREATE TRIGGER auditTick${place} AFTER ${when} ON fitTicks
     WHEN NOT EXISTS (SELECT 1 FROM importing) ${changed}
     BEGIN INSERT INTO events (jobId, at, what, about) VALUES (new.jobId, ${now}, '${what}',
       json_object('step', new.step, 'way', new.way, 'reason', new.reason, 'at', new.struckAt)); END`,
);

/** Neither who did something nor who signed in can be changed or removed. */
const sealed = ["eventPeople", "signIns"].flatMap((table) =>
  ["UPDATE", "DELETE"].map(
    (when) => `CREATE TRIGGER ${table}${when} BEFORE ${when} ON ${table}
     BEGIN SELECT RAISE(ABORT, 'the audit trail is not changed'); END`,
  ),
);

/** Who did what, and who signed in where. */
export const who = {
  name: "021-who",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    await sequelize.query("CREATE TABLE acting (id INTEGER NOT NULL PRIMARY KEY CHECK (id = 1), who TEXT)");
    await sequelize.query("INSERT INTO acting (id) VALUES (1)");
    await sequelize.query(
      "CREATE TABLE eventPeople (eventId INTEGER NOT NULL PRIMARY KEY REFERENCES events (id), who TEXT NOT NULL)",
    );
    await context.createTable("signIns", {
      id: counted(),
      at: text(),
      who: text(),
      place: text(),
      what: text(),
    });
    for (const table of made) await context.addColumn(table, "takenBy", maybeText());
    for (const sql of [...naming, ...ticks, ...sealed]) await sequelize.query(sql);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    const names = ["eventWho", ...made.map((table) => `${table}Who`), "workWho0", "workWho1"];
    for (const name of [...names, "auditTick0", "auditTick1"]) await sequelize.query(`DROP TRIGGER ${name}`);
    for (const table of made) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN takenBy`);
    for (const table of ["signIns", "eventPeople", "acting"]) await context.dropTable(table);
  },
};

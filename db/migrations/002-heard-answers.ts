import { type QueryInterface, QueryTypes } from "sequelize";

const chipWords: Readonly<Record<string, string>> = {
  noise: "noise",
  smell: "smell",
  water: "water",
  "comes-and-goes": "comes and goes",
};

/**
 * What a customer noticed is now a reading like any other. The words stored on jobs so far are too vague for that, so
 * they become part of the customer's words.
 */
export const heardAnswers = {
  name: "002-heard-answers",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    const { sequelize } = context;
    const jobs = await sequelize.query<{ id: number; words: string; noticed: string }>(
      "SELECT id, words, noticed FROM jobs WHERE noticed <> '[]'",
      { type: QueryTypes.SELECT },
    );
    for (const { id, words, noticed } of jobs) {
      const chips = (JSON.parse(noticed) as string[]).map((chip) => chipWords[chip] ?? chip);
      const said = `${words} Noticed: ${chips.join(", ")}.`.trim();
      await sequelize.query("UPDATE jobs SET words = ? WHERE id = ?", { replacements: [said, id] });
    }
    await sequelize.query("ALTER TABLE jobs DROP COLUMN noticed");
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.sequelize.query("ALTER TABLE jobs ADD COLUMN noticed TEXT NOT NULL DEFAULT '[]'");
  },
};

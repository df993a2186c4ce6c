import { carries, pathBoard, sharedByDead } from "../diagnose/explain/pathBoard";
import { type ExerciseForm, shuffled, someOf } from "./exercise";

/** What one working speed proves: everything that carries its current. */
export const workingSpeed: ExerciseForm = (on, chance) => {
  const { settings } = on.exact.circuit;
  const rows = pathBoard(on.exact);
  const speeds = settings.flatMap((_, index) =>
    rows.some((row) => carries(row, index)) && rows.some((row) => !carries(row, index)) && index > 0
      ? [index]
      : [],
  );
  if (speeds.length === 0) return null;
  const at = chance.pick(speeds);
  const carrying = someOf(
    rows.filter((row) => carries(row, at)),
    3,
    chance,
  );
  const idle = someOf(
    rows.filter((row) => !carries(row, at)),
    2,
    chance,
  );
  const offered = shuffled([...carrying, ...idle], chance);
  const setting = settings[at] ?? "";
  return {
    asked: {
      about: "working-speed",
      setting,
      carrying: carrying.map((row) => ({ id: row.id, amps: row.amps[at] ?? 0 })),
      idle: idle.map(({ id }) => id),
    },
    setup: { key: "run", setting },
    marked: offered.map(({ part }) => part),
    answers: offered.map(({ id }) => id),
    right: carrying.map(({ id }) => id),
    many: true,
  };
};

/** What the dead speeds share and no working one uses. */
export const deadSpeeds: ExerciseForm = (on, chance) => {
  const { settings } = on.exact.circuit;
  const rows = pathBoard(on.exact);
  const cases: { alive: string; shared: string[]; other: string[] }[] = [];
  for (let alive = 1; alive < settings.length; alive++) {
    const words = new Map(
      settings.slice(1).map((setting, i) => [setting, i + 1 === alive ? "normal" : "none"]),
    );
    const shared = sharedByDead(rows, settings, words);
    const other = rows.flatMap(({ id, amps }) => ((amps[alive] ?? 0) > 0.02 ? [id] : []));
    if (shared.length > 0 && other.length >= 2) cases.push({ alive: settings[alive] ?? "", shared, other });
  }
  if (cases.length === 0) return null;
  const own = chance.pick(cases);
  const right = chance.pick(own.shared);
  const wrong = someOf(own.other, 3, chance);
  return {
    asked: { about: "dead-speeds", alive: own.alive, right, wrong },
    setup: { key: "run", setting: own.alive },
    marked: [right, ...wrong].map((id) => id.split(".")[0] ?? id),
    answers: shuffled([right, ...wrong], chance),
    right: [right],
    many: false,
  };
};

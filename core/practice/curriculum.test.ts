import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { placesNeeded } from "../diagnose/tests/access";
import { shippedEngine, shippedIds } from "../testing/shippedCircuit";
import { curriculum, exerciseForms, exerciseOn, isRight, lessonIds } from "./curriculum";
import { sameVisit, whatProvesIt } from "./decideExercises";
import { rippleOfMotor, whatKilledIt } from "./faultExercises";
import { deadSpeeds, workingSpeed } from "./pathExercises";
import { practiceCircuit } from "./practiceCase";
import { dropUnderLoad, dropWithoutLoad, floatingGround, lightEitherClip } from "./probeExercises";

const circuits = shippedIds.map((id) => practiceCircuit(shippedEngine(id)));
const whimbrel = circuits[shippedIds.indexOf("whimbrel-four-speed")];
if (!whimbrel) throw new Error("no such circuit");

/** An exercise on the first circuit, from an index on, that has something to ask. */
function exerciseFrom(item: string, seed: number) {
  for (let i = 0; i < circuits.length; i++) {
    const on = circuits[(seed + i) % circuits.length];
    const exercise = on ? exerciseOn(item, on, seed) : null;
    if (on && exercise) return { on, exercise };
  }
  return null;
}

describe.each(exerciseForms.map(({ item }) => item))("%s", (item) => {
  const made = Array.from({ length: 24 }, (_, seed) => exerciseFrom(item, 1000 + seed));

  test("can always be asked on some circuit", () => {
    for (const own of made) {
      if (!own) throw new Error("nothing to ask");
      const { exercise } = own;
      const ids = exercise.answers;
      expect(new Set(ids).size).toBe(ids.length);
      expect(ids.length).toBeGreaterThan(1);
      expect(exercise.right.length).toBeGreaterThan(0);
      for (const id of exercise.right) expect(ids).toContain(id);
      expect(exercise.right.length).toBeLessThan(ids.length);
      expect(exercise.many || exercise.right.length === 1).toBe(true);
      expect(isRight(exercise, exercise.right)).toBe(true);
      expect(isRight(exercise, ids)).toBe(false);
      expect(isRight(exercise, [])).toBe(false);
    }
  });

  test("varies, and is the same for the same seed", () => {
    expect(new Set(made.map((own) => JSON.stringify(own?.exercise))).size).toBeGreaterThan(1);
    expect(exerciseFrom(item, 1003)).toEqual(made[3]);
  });
});

describe("answers worked by hand on a ground-switched pack", () => {
  const asked = <T>(of: (seed: number) => T | null, wanted: (own: T) => boolean): T => {
    for (let seed = 0; seed < 400; seed++) {
      const own = of(seed);
      if (own && wanted(own)) return own;
    }
    throw new Error("never asked");
  };

  test("speed 4 bypasses the pack, so it proves neither its coils nor its link", () => {
    const own = asked(
      (seed) => workingSpeed(whimbrel, chanceFrom(seed)),
      ({ setup, answers }) => setup.setting === "4" && answers.some((id) => id.startsWith("R1")),
    );
    expect(own.right.filter((id) => id.startsWith("R1"))).toEqual([]);
    expect(own.right.length).toBeGreaterThan(0);
  });

  test("only 4 working points to what the pack's speeds share", () => {
    const own = asked(
      (seed) => deadSpeeds(whimbrel, chanceFrom(seed)),
      ({ asked: own }) => own.about === "dead-speeds" && own.alive === "4",
    );
    expect(own.right[0]).toMatch(/^R1\./);
  });

  test("volts across a joint are the current times its ohms", () => {
    for (let seed = 0; seed < 12; seed++) {
      const own = dropUnderLoad(whimbrel, chanceFrom(seed));
      if (own?.asked.about !== "drop-under-load") throw new Error("nothing asked");
      const { ohms, amps } = own.asked;
      const volts = Number(own.right[0]?.replace(" V", ""));
      // The wire's own ohms add a few hundredths of a volt per metre.
      expect(volts).toBeGreaterThanOrEqual(ohms * amps - 0.06);
      expect(volts).toBeLessThan(ohms * amps + 0.6);
    }
  });

  test("without current a joint shows nothing", () => {
    const told = Array.from(
      { length: 12 },
      (_, seed) => dropWithoutLoad(whimbrel, chanceFrom(seed))?.right[0],
    );
    expect(new Set(told.filter((own) => own !== undefined))).toEqual(new Set(["0.0 V"]));
  });

  test("a light answers bright, dim and dark, each often enough to be learned", () => {
    const told = Array.from(
      { length: 60 },
      (_, seed) => lightEitherClip(whimbrel, chanceFrom(seed))?.right[0],
    );
    for (const word of ["bright", "dark"])
      expect(told.filter((own) => own === word).length).toBeGreaterThan(9);
  });

  test("with its ground open, a motor's minus lights to ground, not to feed", () => {
    for (const on of circuits)
      for (let seed = 0; seed < 6; seed++) {
        const own = floatingGround(on, chanceFrom(seed));
        if (own?.asked.about === "ground-off" && own.asked.toFeed) expect(own.right).toEqual(["dark"]);
        else if (own) expect(own.right[0]).not.toBe("dark");
      }
  });

  test("the same visit is what needs no other place opened, by the circuit's own places", () => {
    const { places } = whimbrel.exact.circuit;
    for (let seed = 0; seed < 12; seed++) {
      const own = sameVisit(whimbrel, chanceFrom(seed));
      if (own?.asked.about !== "same-visit") throw new Error("nothing asked");
      const { asked } = own;
      const here = places.find(({ id }) => id === asked.place);
      expect(asked.placeMinutes).toBe(here?.minutes);
      for (const { id, test: offered } of asked.offered)
        expect(placesNeeded(whimbrel.compiled, offered).every((place) => place === asked.place)).toBe(
          own.right.includes(id),
        );
    }
  });

  test("only the top speed alive: an open coil or link proves the pack, a dark light at its plug does not", () => {
    const own = asked(
      (seed) => whatProvesIt(whimbrel, chanceFrom(seed)),
      ({ asked: of }) => of.about === "proof" && of.alive === "4" && of.part === "R1",
    );
    if (own.asked.about !== "proof") throw new Error("nothing asked");
    const proving = own.asked.offered.find(({ id }) => own.right.includes(id))?.reading;
    expect(proving).toMatchObject({ test: "ohms" });
    for (const { reading, proves } of own.asked.offered) if (!proves) expect(reading.test).not.toBe("ohms");
  });

  // Twelve bars and two poles give twelve ripples, eleven give twenty-two (textbooks on direct-current machines, from memory).
  test("ripples by bars and poles", () => {
    const count = (bars: number): string | undefined =>
      asked(
        (seed) => rippleOfMotor(whimbrel, chanceFrom(seed)),
        ({ asked: own }) => own.about === "humps-a-turn" && own.bars === bars && own.poles === 2,
      ).right[0];
    expect(count(12)).toBe("12");
    expect(count(11)).toBe("22");
  });

  test("what draws more burns a pack", () => {
    const own = whatKilledIt(whimbrel, chanceFrom(3));
    expect(own?.right).toEqual(["tight"]);
    const offered = own?.asked.about === "killer" ? own.asked.offered : [];
    const amps = (id: string) => offered.find((killer) => killer.id === id)?.amps ?? Number.NaN;
    // A blocked duct lowers a centrifugal fan's current (fan laws).
    expect(amps("filter")).toBeLessThan(amps("tight"));
  });
});

test("lessons have something to ask", () => {
  expect(curriculum.map(({ id }) => id)).toEqual(lessonIds);
  for (const { forms } of curriculum) expect(Object.keys(forms).length).toBeGreaterThan(0);
});

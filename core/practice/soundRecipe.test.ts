import { describe, expect, test } from "@jest/globals";
import { noises } from "../motor/mechanicalMode";
import { soundRecipe } from "./soundRecipe";

describe("the sound of a simulated blower", () => {
  test("is silent while it stands still, whatever is wrong", () => {
    for (const noise of noises)
      expect(soundRecipe(0, noise)).toEqual({ tones: [], hiss: null, blowsHertz: null });
  });

  test("follows the speed: ripple and blades in proportion, the air with its square", () => {
    const [slow, fast] = [soundRecipe(1200, "quiet"), soundRecipe(2400, "quiet")];
    expect(fast.tones.map(({ hertz }) => hertz)).toEqual(slow.tones.map(({ hertz }) => 2 * hertz));
    // Twelve bars on two poles ripple twelve times a turn: 240 a second at 1200 rpm.
    expect(slow.tones.map(({ hertz }) => hertz)).toContain(240);
    expect((fast.hiss?.loud ?? 0) / (slow.hiss?.loud ?? 1)).toBeCloseTo(4, 9);
  });

  test("each noise sounds different: a squeal high, a rumble once per turn, a tick as knocks, a whistle at one pitch", () => {
    const own = (noise: (typeof noises)[number], rpm = 3000) => soundRecipe(rpm, noise);
    expect(Math.max(...own("squeal").tones.map(({ hertz }) => hertz))).toBeGreaterThan(1900);
    expect(own("rumble").tones.some(({ beatHertz }) => beatHertz === 50)).toBe(true);
    expect(own("tick").blowsHertz).toBe(50);
    const pitch = (rpm: number): number[] => own("whistle", rpm).tones.map(({ hertz }) => hertz);
    expect(pitch(1500).at(-1)).toBe(pitch(3000).at(-1));
    expect(new Set(noises.map((noise) => JSON.stringify(own(noise)))).size).toBe(noises.length);
  });
});

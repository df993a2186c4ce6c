import { describe, expect, test } from "@jest/globals";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import type { PlaceReading } from "./placeReading";
import { switchCommon } from "./switchCommon";
import { believeWiring } from "./wiringBelief";

const cache = new CandidateCache();
type Lit = "bright" | "dim" | "dark";

/** The common after the ground was sought with a light at every pin of the switch's plug, with the blower off. */
function commonAfter(seen: Readonly<Record<string, Lit>>): string | null {
  const complaint = placeComplaint(["none", "none", "normal"]);
  const off = { key: "run", setting: "0" } as const;
  const side: PlaceReading = {
    ...{ test: "light", at: "motor-plug", clip: "ground", ...off },
    seen: { a: "bright", b: "bright" },
  };
  const light: PlaceReading = { test: "light", at: "switch-plug", clip: "feed", ...off, seen };
  const readings = [...complaint, side, light];
  return switchCommon(
    believeWiring({ speeds: 3, speedPart: "pack" }, readings, cache).candidates[0],
    readings,
  );
}

describe("the common of a switch", () => {
  // Common practice, no source: a switch that makes the ground has it at its common, whatever its position.
  test("of a switch on the ground side is the one pin with a ground", () => {
    expect(commonAfter({ a: "dark", b: "dark", c: "bright", d: "dark" })).toBe("c");
  });

  test("is not known while pins look alike, nor before anything was read there", () => {
    expect(commonAfter({ a: "bright", b: "bright", c: "bright", d: "bright" })).toBeNull();
    expect(switchCommon(undefined, [])).toBeNull();
  });
});

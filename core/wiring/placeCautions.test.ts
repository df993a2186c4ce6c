import { describe, expect, test } from "@jest/globals";
import { placeCautions } from "./placeCautions";

describe("cautions of a test by place", () => {
  test("airbags and the wheel at the motor's plug, heat at the pack, nothing at the fuse box or from the seat", () => {
    expect(placeCautions({ test: "light", at: "motor-plug", clip: "ground" }, [])).toEqual([
      "wheel",
      "airbag",
    ]);
    expect(placeCautions({ test: "look", at: "pack" }, [])).toEqual(["airbag", "hot-pack"]);
    expect(placeCautions({ test: "light", at: "fuses", clip: "ground" }, [])).toEqual([]);
    expect(placeCautions({ test: "airflow", key: "run", setting: "2" }, [])).toEqual([]);
    expect(placeCautions({ test: "airflow", unplugged: "module-plug" }, [])).toEqual(["airbag", "hot-pack"]);
  });

  test("leads and lamps, and a relay before it is pulled", () => {
    expect(placeCautions({ test: "airflow", leads: true }, [])).toContain("fused-lead");
    expect(placeCautions({ test: "lampload", lampFor: "motor-plug" }, [])).toEqual(
      expect.arrayContaining(["fused-lead", "load-lamp"]),
    );
    expect(placeCautions({ test: "swap", at: "relay" }, [])).toEqual(["swap"]);
  });

  test("a blower that does not stop is made safe first; with its plug off it says nothing of that", () => {
    const runsOn = { test: "airflow", key: "run", setting: "0", heard: true, seen: "strong" } as const;
    const spin = { test: "spin", at: "motor" } as const;
    expect(placeCautions(spin, [runsOn])).toContain("runs-on");
    expect(placeCautions(spin, [{ ...runsOn, unplugged: "module-plug" }])).not.toContain("runs-on");
    expect(placeCautions(spin, [{ ...runsOn, setting: "1" }])).not.toContain("runs-on");
  });
});

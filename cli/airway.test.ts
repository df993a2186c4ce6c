// The command line as it is run: its own process, its own exit status.
import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { heard, shippedJson } from "../core/testing/shippedCircuit";
import { askInstrument, askNumber } from "../server/instrumentSocket";

/** What `npm run airway` starts; it looks whether a source changed, and bundles anew where one did. */
const script = join(process.cwd(), "scripts", "airway.mjs");
const bundled = join(process.cwd(), "build", "cli", "airway.mjs");
const whimbrel = join(process.cwd(), "demo", "circuits", "whimbrel-four-speed.json");
const folder = mkdtempSync(join(tmpdir(), "airway-cli-"));

function airway(args: readonly string[], input = "") {
  const { status, stdout, stderr } = spawnSync(process.execPath, [bundled, ...args], {
    input,
    encoding: "utf8",
  });
  return { status, stdout, stderr };
}

function file(name: string, content: string): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

const onlyTop = {
  format: "airway-case",
  version: 1,
  id: "van-3",
  circuitId: "whimbrel-four-speed",
  readings: heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
};

beforeAll(() => {
  expect(spawnSync(process.execPath, [script, "check", whimbrel]).status).toBe(0);
});

describe("airway", () => {
  test("check names what it read", () => {
    const { status, stdout } = airway(["check", whimbrel]);
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toEqual({ ok: true, format: "airway-circuit", id: "whimbrel-four-speed" });
    expect(JSON.parse(airway(["check", "-"], JSON.stringify(onlyTop)).stdout)).toEqual({
      ok: true,
      format: "airway-case",
      id: "van-3",
    });
  });

  test("solve gives volts, amps, watts and rpm, and names what floats", () => {
    const { stdout } = airway(["solve", whimbrel, "--key", "run", "--setting", "2", "--unplugged", "X5"]);
    const point = JSON.parse(stdout);
    expect(point.rpm).toEqual({ M1: 0 });
    expect(point.floating).toContain("R1.T2");
    expect(point.volts["R1.T2"]).toBeNull();
    const healthy = JSON.parse(
      airway(["solve", whimbrel, "--key", "run", "--engine", "--setting", "2"]).stdout,
    );
    expect(healthy.rpm.M1).toBeGreaterThan(1000);
    // The whole of speed 2 goes through the pack: from the T2 tap on, its elements carry the motor's amps.
    expect(Math.abs(healthy.amps["R1.e2"])).toBeCloseTo(healthy.amps.M1, 6);
    expect(healthy.watts["R1.e2"]).toBeCloseTo(healthy.amps.M1 ** 2 * 0.65, 6);
  });

  test("solve takes any fault of the catalogue by its id", () => {
    const faults = JSON.parse(airway(["faults", whimbrel]).stdout) as {
      fault: string;
      part: string;
      prior: number;
    }[];
    expect(faults.length).toBeGreaterThan(200);
    expect(faults.find(({ fault }) => fault === "R1.link:open")?.part).toBe("R1");
    const dead = airway([
      "solve",
      whimbrel,
      "--key",
      "run",
      "--setting",
      "3",
      "--fault",
      "M1:tight@1.6+R1.link:open",
    ]);
    expect(JSON.parse(dead.stdout).rpm.M1).toBe(0);
  });

  test("diagnose prints the diagnosis, or says it in words", () => {
    const diagnosis = JSON.parse(airway(["diagnose", "-"], JSON.stringify(onlyTop)).stdout);
    expect(diagnosis.id).toBe("van-3");
    expect(diagnosis.verdict.state).toBe("open");
    expect(diagnosis.parts[0].part).toBe("R1");
    const { stdout } = airway(["diagnose", "-", "--text"], JSON.stringify(onlyTop));
    expect(stdout).toMatch(/^open: replace R1, \d+ %$/m);
  });

  test("lines answers in order, one line a line, and goes on after a bad one", async () => {
    const child = spawn(process.execPath, [script, "lines"], { stdio: ["pipe", "pipe", "inherit"] });
    let out = "";
    child.stdout.on("data", (chunk: Buffer) => {
      out += chunk.toString();
    });
    const closed = new Promise<number | null>((resolve) => child.on("close", resolve));
    const inline = {
      ...onlyTop,
      id: "own",
      circuitId: undefined,
      circuit: shippedJson("godwit-four-speed-feed"),
    };
    const lines = [
      "not json",
      JSON.stringify(onlyTop),
      JSON.stringify(inline),
      "{}",
      JSON.stringify({ ...onlyTop, id: "again" }),
    ];
    child.stdin.end(`${lines.join("\n")}\n`);
    expect(await closed).toBe(0);
    const answers = out
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line));
    expect(answers.map(({ id, error }) => id ?? Boolean(error))).toEqual([
      true,
      "van-3",
      "own",
      true,
      "again",
    ]);
    expect({ ...answers[4], id: "van-3" }).toEqual(answers[1]);
  });
});

describe("bad input exits 2 with one line that names the place", () => {
  // biome-ignore lint/suspicious/noExplicitAny: writes into a file of unknown shape on purpose
  const spoilt = (change: (circuit: any) => void): string => {
    const circuit = shippedJson("whimbrel-four-speed");
    change(circuit);
    return file(`spoilt-${Math.floor(performance.now() * 1000)}.json`, JSON.stringify(circuit));
  };

  test.each<[string, () => string[], RegExp]>([
    [
      "an unknown terminal",
      () => ["check", spoilt((c) => (c.wires[0].to = "J1.q"))],
      /wires\.0\.to: unknown terminal "J1\.q"/,
    ],
    ["no such file", () => ["check", join(folder, "none.json")], /cannot be read \(ENOENT\)/],
    ["no JSON", () => ["check", file("text.json", "{ nearly")], /not JSON: /],
    [
      "another format",
      () => ["check", file("other.json", '{"format":"other"}')],
      /format: expected "airway-circuit", "airway-case", "airway-plan" or "airway-part", got "other"/,
    ],
    [
      "a file too large",
      () => ["check", file("large.json", `"${"x".repeat(5_000_000)}"`)],
      /at most 4194304 bytes are read, got 5000002/,
    ],
    ["an unknown setting", () => ["solve", whimbrel, "--setting", "9"], /setting: unknown setting "9"/],
    [
      "an unknown fault",
      () => ["solve", whimbrel, "--fault", "Q9:open"],
      /no fault "Q9:open" in this circuit/,
    ],
    [
      "an engine running without the key",
      () => ["solve", whimbrel, "--engine"],
      /engine: the engine runs only with key "run"/,
    ],
    [
      "a jump lead to nowhere",
      () => ["solve", whimbrel, "--bridged", "X3:1,Z"],
      /bridged\.0\.1: no point "Z"/,
    ],
    ["an unknown option", () => ["solve", whimbrel, "--colour", "red"], /Unknown option '--colour'/],
    [
      "an option of another verb",
      () => ["faults", whimbrel, "--fault", "M1:open"],
      /--fault is not an option of faults/,
    ],
    ["an unknown verb", () => ["mend", whimbrel], /unknown verb "mend"/],
    ["nothing", () => [], /usage: airway/],
  ])("%s", (_, args, message) => {
    const { status, stdout, stderr } = airway(args());
    expect(stderr).toMatch(message);
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect({ status, stdout }).toEqual({ status: 2, stdout: "" });
  });

  test("a case for a circuit that is not there", () => {
    const { status, stderr } = airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, circuitId: "heron" }));
    expect({ status, stderr }).toEqual({
      status: 2,
      stderr: 'airway: circuitId: no circuit "heron" in the library\n',
    });
  });

  test("100 MB on standard input", () => {
    const { status, stderr } = airway(["diagnose", "-"], `{"format":"${"x".repeat(100_000_000)}"}`);
    expect(status).toBe(2);
    expect(stderr).toMatch(/at most 4194304 bytes are read/);
  });
});

describe("the rest of the contract", () => {
  const control = join(process.cwd(), "demo", "circuits", "siskin-linear-low.json");

  test("spice writes the same operating point as an ngspice netlist with its nodes named", () => {
    const { status, stdout } = airway([
      "spice",
      control,
      "--key",
      "run",
      "--setting",
      "3",
      "--fault",
      "X4:2:high@0.5",
    ]);
    expect(status).toBe(0);
    expect(stdout).toMatch(/^\* siskin-linear-low\n/);
    expect(stdout).toMatch(/^\* node \d+ = X4:2$/m);
    expect(stdout).toMatch(/^BD0 d0 0 V=min\(1,max\(0,/m);
    expect(stdout).toMatch(/^\.op$/m);
    expect(airway(["spice", control, "--plan"]).status).toBe(2);
  });

  test("diagnose --plan looks ahead and prices the schools", () => {
    const diagnosis = JSON.parse(airway(["diagnose", "-", "--plan"], JSON.stringify(onlyTop)).stdout);
    expect(diagnosis.plan.first.test).toEqual(diagnosis.next[0].test);
    expect(diagnosis.plan.schools).toHaveLength(4);
    expect(diagnosis.cleared.map(({ part }: { part: string }) => part)).toContain("F7");
  });

  test("a shop's money, parts and counts are taken, and refused where they do not fit", () => {
    const own = { ...onlyTop, shop: { comebackMinor: 0, counts: [{ kind: "motor", mode: "open", n: 200 }] } };
    const usual = JSON.parse(airway(["diagnose", "-"], JSON.stringify(onlyTop)).stdout);
    const learned = JSON.parse(airway(["diagnose", "-"], JSON.stringify(own)).stdout);
    const p = (diagnosis: { parts: { part: string; p: number }[] }) =>
      diagnosis.parts.find(({ part }) => part === "M1")?.p ?? 0;
    expect(p(learned)).toBeGreaterThan(p(usual));
    expect(learned.verdict.fitNowMinor).toBeLessThan(usual.verdict.fitNowMinor);
    const wrong = airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, shop: { hourMinor: -1 } }));
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toMatch(/shop\.hourMinor: must be at least 0, got -1/);
  });

  test("every test of the format is read, and refused by its place where the circuit has no such thing", () => {
    const setup = { key: "run", setting: "4" };
    const readings = [
      { test: "amps", around: "W9", ...setup, amps: 17.6 },
      { test: "amps", around: "M1", ...setup, engine: true, amps: 17.6 },
      { test: "listen", ...setup, seen: "rumble", followsSpeed: true },
      { test: "smell", ...setup, seen: "burnt" },
      { test: "history", of: "wet-carpet", seen: "yes" },
      { test: "tap", at: "M1", ...setup, seen: "nothing" },
      { test: "lampload", lampFor: "M1", ...setup, seen: "bright" },
      { test: "swap", at: "K3", seen: "same" },
      { test: "ripple", at: "M1", ...setup, seen: "uneven" },
      {
        test: "airflow",
        at: "M1",
        unplugged: ["X3"],
        bridged: [
          ["G1.+", "M1.+"],
          ["G1.-", "M1.-"],
        ],
        seen: "normal",
      },
    ];
    const one = (reading: object) =>
      airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, readings: [reading] }));
    expect(
      JSON.parse(airway(["diagnose", "-"], JSON.stringify({ ...onlyTop, readings })).stdout).parts[0].part,
    ).toBe("M1");
    expect(one({ test: "amps", around: "W99", amps: 1 }).stderr).toMatch(
      /readings\.0\.around: no wire or motor "W99"/,
    );
    expect(one({ test: "swap", at: "F7", seen: "same" }).stderr).toMatch(/readings\.0\.at: no relay "F7"/);
    expect(one({ test: "lampload", lampFor: "R1", seen: "dark" }).stderr).toMatch(
      /readings\.0\.lampFor: expected a motor or a fuse/,
    );
    expect(one({ test: "history", of: "moon", seen: "yes" }).stderr).toMatch(
      /readings\.0\.of: expected "heat" or "bumps"/,
    );
  });
});

describe("humps and route", () => {
  const trace = (delimiter: string, comma: string): string =>
    [
      `time${delimiter}clamp`,
      ...Array.from({ length: 16_000 }, (_, i) => {
        const volts = 0.15 + 0.0134 * Math.abs(Math.sin((Math.PI * i * 600) / 16_000));
        return `${(i / 16_000).toFixed(6)}${delimiter}${volts.toFixed(5)}`.replaceAll(".", comma);
      }),
    ].join("\n");

  // Clamp at 10 mV per A: 13.4 mV between humps is 1.34 A (common practice, no source).
  test.each([
    [",", "."],
    [";", ","],
  ])("a CSV split by %p with %p for its decimals is read, at the probe's scale", (delimiter, comma) => {
    const path = file(`trace${comma === "." ? 1 : 2}.csv`, trace(delimiter, comma));
    const { status, stdout } = airway(["humps", path, "--volts-per-amp", "0.01", "--bars", "12"]);
    expect(status).toBe(0);
    const humps = JSON.parse(stdout);
    expect(humps.peakToPeakAmps).toBeCloseTo(1.34, 1);
    expect(humps.humpHz).toBeCloseTo(600, 0);
    expect(humps.rpm).toBeCloseTo(3000, -1);
    expect(humps.verdict).toBe("even");
  });

  test("a trace that is none, or options that make no sense, are refused by their place", () => {
    expect(airway(["humps", file("no.csv", "a,b\nc,d")]).stderr).toMatch(/expected two columns of numbers/);
    expect(airway(["humps", file("gap.csv", "0,1\n1,2\n2,x\n3,1")]).stderr).toMatch(
      /line 3: expected two numbers, got "2 \| x"/,
    );
    expect(airway(["humps", file("bad.wav", "not sound")]).stderr).toMatch(/not a WAV file/);
    expect(airway(["humps", file("ok.csv", "0,1\n1,2"), "--bars", "2.5"]).stderr).toMatch(
      /--bars: expected a whole number above 0/,
    );
  });

  test("route prints the quickest way in and back", () => {
    const plan = join(process.cwd(), "demo", "plans", "whimbrel-blower.json");
    const route = JSON.parse(airway(["route", plan, "--to", "R1,M1"]).stdout);
    expect(route.minutes).toBe(11.5);
    expect(route.steps.map(({ id }: { id: string }) => id)).toContain("pack-screws");
    expect(airway(["route", plan]).stderr).toMatch(/--to: expected one or more parts/);
    expect(airway(["route", plan, "--to", "R1", "--text"]).stdout).toMatch(
      /^5 min, with trim lever and 7 mm socket\n1\. Fold/,
    );
  });
});

describe("route, match and price", () => {
  const plan = (name: string): string => join(process.cwd(), "demo", "plans", `${name}.json`);

  test("route goes by the book where asked, and on from what is off", () => {
    const route = (...more: string[]) =>
      JSON.parse(airway(["route", plan("dotterel-ear"), "--to", "M1", ...more]).stdout);
    expect(route("--prefer", "book").minutes).toBeGreaterThan(200);
    expect(route("--done", "glove-box").minutes).toBeCloseTo(route().minutes - 4, 9);
    expect(airway(["route", plan("dotterel-ear"), "--to", "M1", "--prefer", "fast"]).stderr).toMatch(
      /--prefer: expected quickest, book, kind, got "fast"/,
    );
    expect(airway(["route", plan("dotterel-ear"), "--to", "M1", "--done", "roof"]).stderr).toMatch(
      /--done: no step "roof"/,
    );
    expect(airway(["route", plan("dotterel-ear"), "--to", "M1", "--text"]).stdout).toMatch(
      /or 9\/32 in for 7 mm socket: 0\.144 mm, loose\n(.*\n)*costs the next person 5 min/,
    );
  });

  const demoParts = JSON.parse(readFileSync(join(process.cwd(), "demo", "parts.json"), "utf8")) as {
    number: string;
  }[];
  const part = (number: string): string =>
    file(`${number}.json`, JSON.stringify(demoParts.find((own) => own.number === number)));

  test("match holds two parts against one another and the circuit, with the splice of its leads", () => {
    const asked = ["--circuit", whimbrel, "--part", "R1", "--against", part("HW 4410-17")];
    const match = JSON.parse(airway(["match", part("HW 4410-18"), ...asked]).stdout);
    expect(match.verdict).toBe("adaptable");
    expect(match.leads.joints).toHaveLength(4);
    expect(airway(["match", part("QR 771 420"), ...asked, "--text"]).stdout).toMatch(
      /^wrong, 2 min of work\n(.*\n)*ohms: wrong/,
    );
    expect(airway(["match", part("HW 4410-18")]).stderr).toMatch(/expected --circuit/);
    expect(
      airway(["match", part("HW 4410-18"), ...asked.slice(0, 3), "Q1", ...asked.slice(4)]).stderr,
    ).toMatch(/no part "Q1"/);
  });

  test("price adds lines up in whole minor units; check knows plans and parts", () => {
    const line = {
      kind: "part",
      title: "x",
      quantityMilli: 1000,
      unit: "pc",
      eachMinor: 33,
      taxBasisPoints: 2000,
    };
    const rounding = { rule: "half-up", at: "total", coinMinor: 1 };
    const priced = airway([
      "price",
      file("lines.json", JSON.stringify({ rounding, lines: [line, line, line] })),
    ]);
    expect(JSON.parse(priced.stdout)).toMatchObject({ netMinor: 99, taxMinor: 20, totalMinor: 119 });
    const spoilt = file("spoilt.json", JSON.stringify({ rounding, lines: [{ ...line, eachMinor: 0.5 }] }));
    expect(airway(["price", spoilt]).stderr).toMatch(/lines\.0\.eachMinor/);
    expect(JSON.parse(airway(["check", plan("siskin-glove-box")]).stdout)).toMatchObject({
      format: "airway-plan",
    });
    expect(JSON.parse(airway(["check", part("HW 4402-03")]).stdout)).toMatchObject({ id: "HW 4402-03" });
  });
});

describe("instrument", () => {
  test("puts a practice instrument on a port, and answers there until it is stopped", async () => {
    const child = spawn(process.execPath, [script, "instrument", whimbrel, "--port", "0", "--setting", "2"], {
      stdio: ["ignore", "pipe", "inherit"],
    });
    try {
      const line = await new Promise<string>((resolve) =>
        child.stdout.once("data", (chunk: Buffer) => resolve(chunk.toString())),
      );
      const { port, identity } = JSON.parse(line) as { port: number; identity: string };
      expect((await askInstrument(port, ["*IDN?"])).toString()).toBe(identity);
      const healthy = JSON.parse(airway(["solve", whimbrel, "--key", "run", "--setting", "2"]).stdout);
      expect(Math.abs((await askNumber(port, ["MEAS:CURR:DC?"])) - healthy.amps.M1)).toBeLessThan(0.5);
    } finally {
      child.kill();
    }
  });

  test("a port or a set-up that makes no sense is refused", () => {
    expect(airway(["instrument", whimbrel, "--port", "x"]).stderr).toMatch(/--port: expected a whole number/);
    expect(airway(["instrument", whimbrel, "--setting", "9"]).stderr).toMatch(/unknown setting "9"/);
    expect(airway(["instrument", whimbrel, "--fault", "Q1:open"]).stderr).toMatch(/no fault "Q1:open"/);
  });
});

// npm run bench ripple: how well ripples are read from recordings made by two models other than the analyser's own.

import { randomSource } from "@core/chance/randomSource";
import { simulatedRecording } from "@core/instrument/windingModel";
import { barsFor, humpsPerTurn } from "@core/motor/commutator";
import { motorConstants } from "@core/motor/motorConstants";
import { readRipple } from "@core/ripple/readRipple";
import type { CurrentRecording } from "@core/signal/currentRecording";
import { drawnRecording, halfSineRms } from "@core/testing/rippleRecording";

const firstSeed = Number(process.env.AIRWAY_SEED ?? 0);
const samples = Number(process.env.AIRWAY_DRAWS ?? 200);
const say = (line: string): void => void process.stdout.write(`${line}\n`);

const low = "chopped at 0.4 to 2 kHz";
const high = "chopped at 8 to 20 kHz";

interface Drawn {
  readonly trace: CurrentRecording;
  readonly rpm: number;
  readonly bars: number;
  readonly bad: boolean;
}
/** No PWM, PWM far above the ripples, and PWM among them. */
type Chopped = "" | "chopped at 8 to 20 kHz" | "chopped at 0.4 to 2 kHz";
type Model = (seed: number, decibels: number, bad: boolean, mark: boolean, chopped: Chopped) => Drawn;

/** Half-sine ripples with drift, jitter, noise. */
const drawn: Model = (seed, decibels, bad, mark, chopped) => {
  const { uniform } = randomSource(seed + 5000);
  const bars = 8 + Math.floor(uniform() * 17);
  const rpm = 600 + 4200 * uniform();
  const perTurn = humpsPerTurn(bars, 2);
  const noise = halfSineRms * 10 ** (-decibels / 20);
  const wrong = Math.floor(uniform() * bars);
  const depth = uniform() * 0.45;
  const own = Array.from({ length: bars }, () => 1 + 0.06 * (uniform() - 0.5));
  // Bar b passes one brush at the turn's position b / bars, the other half a turn later.
  const heights = (hump: number): number => {
    const first = Math.floor((hump * bars) / perTurn);
    const even = perTurn === bars;
    const bar = even ? hump % (bars / 2) : hump % 2 === 0 ? first : Math.floor(((hump + bars) % perTurn) / 2);
    const isBad = bad && (even ? bar === wrong % (bars / 2) : bar === wrong);
    return isBad ? depth : (own[bar] ?? 1);
  };
  const markRms = noise * 10 ** ((10 + 10 * uniform()) / 20);
  const rateHz = chopped ? 60_000 : Math.max(10_000, 12 * ((rpm * perTurn) / 60));
  const made = drawnRecording({
    bars,
    rpm,
    rateHz,
    heights,
    noise,
    seed,
    seconds: 1 + uniform(),
    drift: 0.06 * (uniform() - 0.5),
    jitter: 0.03 * uniform(),
    mark: mark ? markRms * Math.SQRT2 : 0,
    ...(chopped
      ? {
          chopping: {
            hz: chopped === low ? 400 + 1600 * uniform() : 8000 + 12_000 * uniform(),
            amps: 0.5 + uniform(),
          },
        }
      : {}),
  });
  return { trace: made, rpm: made.rpm, bars, bad };
};

/** Constants of a typical blower motor. */
const anyMotor = (uniform: () => number) =>
  motorConstants({
    id: "M1",
    kind: "motor",
    ratedVolts: 13.5,
    ratedAmps: 14 + 8 * uniform(),
    stallAmps: 60 + 20 * uniform(),
    ratedRpm: 2600 + 1200 * uniform(),
  });

/** The winding's own equations. */
const wound: Model = (seed, decibels, bad, mark, chopped) => {
  const { uniform } = randomSource(seed + 9000);
  const bars = 8 + Math.floor(uniform() * 17);
  const constants = anyMotor(uniform);
  const volts = 5 + 8 * uniform();
  const seconds = 1 + uniform();
  const perTurn = humpsPerTurn(bars, 2);
  const base = {
    rateHz: chopped ? 80_000 : Math.max(10_000, 12 * perTurn * 60),
    seconds,
    volts,
    driftShare: 0.06 * (uniform() - 0.5),
    jitterShare: 0.02 * uniform(),
  };
  const motor = { constants, bars, poles: 2 };
  const badBars = bad ? [{ bar: Math.floor(uniform() * bars), ohms: 0.05 + 0.3 * uniform() }] : [];
  const chopping = chopped ? { hz: 8000 + 12_000 * uniform(), duty: 0.4 + 0.5 * uniform() } : null;
  // The ripple's own swing at the speed of the recording; a chopped motor has its share of the volts.
  const quiet = simulatedRecording(motor, {
    ...base,
    volts: volts * (chopping?.duty ?? 1),
    seconds: 0.3,
    driftShare: 0,
    jitterShare: 0,
  });
  const half = quiet.amps.subarray(quiet.amps.length >> 1);
  const mean = half.reduce((s, v) => s + v, 0) / half.length;
  const rms = Math.sqrt(half.reduce((s, v) => s + (v - mean) ** 2, 0) / half.length);
  const noise = rms * 10 ** (-decibels / 20);
  const trace = simulatedRecording(
    { ...motor, badBars },
    { ...base, seed, ...(chopping === null ? {} : { chopping }) },
  );
  // A mark added once per true turn: the variation of an unbalanced wheel.
  const { turns } = trace;
  const rpm = (((turns.at(-1) ?? 0) - (turns[0] ?? 0)) * 60 * trace.rateHz) / (turns.length - 1);
  const markRms = mark ? noise * 10 ** ((10 + 10 * uniform()) / 20) : 0;
  const { normal } = randomSource(seed + 77);
  for (let i = 0; i < trace.amps.length; i++)
    trace.amps[i] =
      (trace.amps[i] as number) +
      markRms * Math.SQRT2 * Math.cos(2 * Math.PI * (turns[i] as number)) +
      noise * normal();
  return { trace, rpm, bars, bad };
};

function tally(
  name: string,
  model: Model,
  decibels: number,
  given: "rpm" | "bars" | "mark" | "none",
  bad: boolean,
  chopped: Chopped,
): void {
  const only = process.env.AIRWAY_ONLY;
  const title = `${name} ${given} ${chopped === "" ? "plain" : chopped} ${bad ? "bad" : "good"}`;
  if (only && !new RegExp(only).test(title)) return;
  let [rpmRight, barsRight, both, nulls, found, wrongRpm, badHeard] = [0, 0, 0, 0, 0, 0, 0];
  for (let seed = firstSeed; seed < firstSeed + samples; seed++) {
    const { trace, rpm, bars } = model(seed, decibels, bad, given === "mark", chopped);
    const ripple = readRipple(
      trace,
      given === "rpm" ? { rpm: rpm * (1 + 0.02 * Math.sin(seed)) } : given === "bars" ? { bars } : {},
    );
    const near = ripple.rpm !== null && Math.abs(ripple.rpm / rpm - 1) < 0.005;
    if (near) rpmRight += 1;
    else if (ripple.rpm !== null) wrongRpm += 1;
    if (ripple.rpm === null) nulls += 1;
    const alike = barsFor(humpsPerTurn(bars, 2), 2).length > 1;
    if (ripple.bars === bars) barsRight += 1;
    else if (ripple.bars === null && alike && ripple.humpsPerTurn === humpsPerTurn(bars, 2)) both += 1;
    if (ripple.verdict !== "even") found += 1;
    if (ripple.verdict === "uneven" || ripple.verdict === "missing") badHeard += 1;
    if (process.env.AIRWAY_SHOW && !near)
      say(
        `   seed ${seed} bars ${bars} rpm ${rpm.toFixed(0)} got ${ripple.rpm?.toFixed(0)} ${ripple.bars} hz ${ripple.humpHz?.toFixed(1)} vs ${((rpm * humpsPerTurn(bars, 2)) / 60).toFixed(1)} ${ripple.cannot.map(({ code }) => code).join("|")} chop ${ripple.chopping?.hz}`,
      );
    if (process.env.AIRWAY_SHOW && near && (ripple.verdict !== "even") !== bad)
      say(
        `   seed ${seed} bars ${bars} verdict ${ripple.verdict} ${ripple.humpAmps.map((h) => h.toFixed(2)).join(" ")} e ${ripple.errorAmps[0]?.toFixed(3)} ${ripple.cannot.map(({ code }) => code).join("|")}`,
      );
  }
  const share = (n: number): string => `${((100 * n) / samples).toFixed(1)} %`;
  const told = `${given}${bad ? ", one bad bar" : ""}${chopped === "" ? "" : `, ${chopped}`}`;
  const figures = [rpmRight, wrongRpm, nulls, barsRight, both, badHeard, found - badHeard].map(share);
  say(`${name} | ${told} | ${figures.join(" | ")}`);
}

say(
  `Node ${process.version}, ${samples} traces a line, 20 dB: noise a tenth of the humps' swing, root mean square`,
);
say(
  "model | given | rpm within 0.5 % | rpm wrong | rpm not told | bars right | 9 or 18, 11 or 22 left open | called uneven or missing | unclear",
);
const models: [string, Model, Chopped[]][] = [
  ["half-sines", drawn, ["", high, low]],
  ["winding", wound, ["", high]],
];
for (const [name, model, ways] of models)
  for (const chopped of ways)
    for (const given of ["bars", "rpm", "mark", "none"] as const)
      for (const bad of [false, true]) tally(name, model, 20, given, bad, chopped);

/**
 * Up to four bad bars, whose rhythm can be stronger than the ripple's: with the bars given, then with the approximate
 * speed too.
 */
function several(seed: number): void {
  const { uniform } = randomSource(seed);
  let count = 0;
  const tallies = ["the bars given", "the speed within 15 % too"].map((given) => ({
    given,
    right: 0,
    wrong: 0,
  }));
  for (const bars of [8, 10, 12, 16, 20, 24])
    for (const volts of [6, 9, 12])
      for (let k = 0; k < 12; k++) {
        const constants = anyMotor(uniform);
        const chosen = new Set<number>();
        while (chosen.size < k % 5) chosen.add(Math.floor(uniform() * bars));
        const badBars = [...chosen].map((bar) => ({ bar, ohms: 0.05 + 0.3 * uniform() }));
        count += 1;
        const trace = simulatedRecording(
          { constants, bars, poles: 2, badBars },
          {
            rateHz: 20_000,
            seconds: 1.2,
            volts,
            driftShare: 0.02,
            jitterShare: 0.01,
            seed: seed + count,
            noiseAmps: 0.03,
          },
        );
        const rpmOver = (from: number, to: number): number =>
          (60 * ((trace.turns[to] ?? 0) - (trace.turns[from] ?? 0)) * trace.rateHz) / (to - from);
        const last = trace.turns.length - 1;
        const aboutRpm = rpmOver(0, last) * (1 + 0.15 * (2 * uniform() - 1));
        for (const [i, options] of [{ bars }, { bars, aboutRpm }].entries()) {
          const { rpm, steadySeconds } = readRipple(trace, options);
          if (rpm === null) continue;
          // The speed settles at first, so the true value is taken over the ripples' stretch.
          const [from, to] = steadySeconds.map((at) => Math.min(last, Math.round(at * trace.rateHz)));
          const near = Math.abs(rpm / rpmOver(from as number, to as number) - 1) < 0.005;
          (tallies[i] as (typeof tallies)[number])[near ? "right" : "wrong"] += 1;
        }
      }
  for (const { given, right, wrong } of tallies)
    say(
      `winding, none to four bad bars, seed ${seed}, ${given}: rpm right on ${right} of ${count}, wrong on ${wrong}, not told on ${count - right - wrong}`,
    );
}
if (!process.env.AIRWAY_ONLY) for (const seed of [216, 99, 5216, 6000, 7000, 8000]) several(seed);

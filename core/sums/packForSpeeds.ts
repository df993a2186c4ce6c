import { motorConstants, rpmOf, steadySpeed } from "../motor/motorConstants";
import { curvePoints, done, refusedAt, type Sum, type SumWorked } from "./sum";

/** One speed of a pack: the ohms in series with the motor, its amps, and the heat in its own element. */
export interface PackSpeed {
  readonly share: number;
  readonly rpm: number;
  readonly amps: number;
  readonly totalOhms: number;
  /** Ohms this speed adds over the next one up, and the largest watts over the speeds that use it. */
  readonly elementOhms: number;
  readonly elementWatts: number;
  readonly packWatts: number;
}

/** A motor by its plate, and its supply volts. */
export interface PackMotor {
  readonly ratedVolts: number;
  readonly ratedAmps: number;
  readonly stallAmps: number;
  readonly ratedRpm: number;
  readonly supplyVolts: number;
}

const constantsOf = ({ ratedVolts, ratedAmps, stallAmps, ratedRpm }: PackMotor) =>
  motorConstants({ kind: "motor", id: "M", ratedVolts, ratedAmps, stallAmps, ratedRpm });

/**
 * A chain of elements that runs a motor at given shares of its top speed. At each, the torque k I equals friction and
 * the fan's square law, and the pack has the rest of the supply over I (R + Rpack) + k ω.
 * @param shares of the top speed, below 1
 */
export function packFor(motor: PackMotor, shares: readonly number[]): PackSpeed[] {
  const constants = constantsOf(motor);
  const top = steadySpeed(constants, motor.supplyVolts);
  const fastest = [...shares].sort((a, b) => b - a);
  const speeds = fastest.map((share) => {
    const speed = share * top;
    const amps =
      (constants.friction + constants.viscous * speed + constants.fan * speed * speed) / constants.k;
    const totalOhms = (motor.supplyVolts - constants.k * speed) / amps - constants.ohms;
    return { share, rpm: rpmOf(speed), amps, totalOhms };
  });
  return speeds.map((speed, index) => {
    const elementOhms = speed.totalOhms - (speeds[index - 1]?.totalOhms ?? 0);
    // The fastest speed that still uses it heats it most.
    return {
      ...speed,
      elementOhms,
      elementWatts: speed.amps ** 2 * elementOhms,
      packWatts: speed.amps ** 2 * speed.totalOhms,
    };
  });
}

/** Shares of the top speed as typed: `25, 50 75`, in per cent; null if one cannot be read. */
export function sharesFrom(text: string): number[] | null {
  const words = text.split(/[;,\s]+/).filter((word) => word !== "" && word !== "%");
  const shares = words.map((word) => Number(word.replace("%", "")) / 100);
  return shares.length > 0 && shares.every((share) => share > 0 && share < 1) ? shares : null;
}

export const packForSpeeds: Sum = {
  id: "pack",
  title: "Coils of a resistor pack",
  question: "The ohms each speed needs in series with the motor, and the heat they give off.",
  fields: [
    {
      id: "speeds",
      title: "Wanted speeds, %",
      text: true,
      start: "35, 55, 75",
      hint: "of the top speed, which uses no coil",
    },
    {
      id: "supply",
      title: "Volts at the motor's feed",
      quantity: "voltage",
      unit: "V",
      start: "13",
      low: 1,
      high: 100,
    },
    {
      id: "ratedVolts",
      title: "Motor rating, volts",
      quantity: "voltage",
      unit: "V",
      start: "13.5",
      low: 1,
      high: 100,
    },
    {
      id: "ratedAmps",
      title: "Motor rating, amps",
      quantity: "current",
      unit: "A",
      start: "18",
      low: 0.1,
      high: 200,
    },
    {
      id: "stallAmps",
      title: "Motor amps, stalled",
      quantity: "current",
      unit: "A",
      start: "75",
      low: 0.2,
      high: 2000,
    },
    {
      id: "ratedRpm",
      title: "Motor rating, rpm",
      quantity: "turning",
      unit: "rpm",
      start: "3200",
      low: 50,
      high: 30_000,
    },
  ],
  formula:
    "I = (friction + fan · ω²) / k;  Rpack = (V − k · ω) / I − Rmotor;  watts = I² · R of each element",
  source:
    "The permanent-magnet motor's equations, V = I R + k ω and torque = k I, with the fan's torque as the square of its speed (fan laws, ISO 5801). 8 % of the rated torque is taken as friction (judgement).",
  work: ({ figure, text }) => {
    const shares = sharesFrom(text("speeds"));
    if (!shares)
      return refusedAt("speeds", "Enter percentages of the top speed between 0 and 100, such as 35, 55, 75.");
    if (figure("stallAmps") <= figure("ratedAmps"))
      return refusedAt(
        "stallAmps",
        "A stalled motor draws more than a turning one: enter a value above the rated amps.",
      );
    const motor: PackMotor = {
      ratedVolts: figure("ratedVolts"),
      ratedAmps: figure("ratedAmps"),
      stallAmps: figure("stallAmps"),
      ratedRpm: figure("ratedRpm"),
      supplyVolts: figure("supply"),
    };
    return done(packOutcome(motor, shares));
  },
};

/** The results of a pack for some speeds, with its table and its curve. */
function packOutcome(motor: PackMotor, shares: readonly number[]): SumWorked {
  const speeds = packFor(motor, shares);
  const slowest = speeds.at(-1);
  const hottest = Math.max(...speeds.map(({ packWatts }) => packWatts));
  const top = rpmOf(steadySpeed(constantsOf(motor), motor.supplyVolts));
  return {
    results: [
      {
        id: "total",
        title: "Whole pack, slowest speed",
        base: slowest?.totalOhms ?? 0,
        quantity: "resistance",
        unit: "ohm",
        main: true,
      },
      {
        id: "hottest",
        title: "Highest heat in the pack",
        base: hottest,
        quantity: "power",
        unit: "W",
        main: true,
      },
      { id: "top", title: "Top speed on this supply", base: top, quantity: "turning", unit: "rpm" },
    ],
    notes: [
      "The pack sits in the air stream because of this heat. Without air it burns out. Never run it outside its duct.",
    ],
    table: {
      head: ["speed", "rpm", "amps", "in all", "coil", "heat in the coil", "whole pack"],
      body: speeds.map((own) => [
        `${Number((100 * own.share).toFixed(1))} %`,
        own.rpm.toFixed(0),
        `${own.amps.toFixed(1)} A`,
        `${own.totalOhms.toFixed(2)} Ω`,
        `${own.elementOhms.toFixed(2)} Ω`,
        `${own.elementWatts.toFixed(0)} W`,
        `${own.packWatts.toFixed(0)} W`,
      ]),
    },
    curve: {
      title: "The pack's ohms by speed",
      across: "% of the top speed",
      up: "Ω in series with the motor",
      points: curvePoints(20, 100, (share) => Math.max(0, packFor(motor, [share / 100])[0]?.totalOhms ?? 0)),
      here: slowest ? { x: 100 * slowest.share, y: slowest.totalOhms } : null,
    },
  };
}

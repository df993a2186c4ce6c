/*
 * Values of parts nobody has read off a diagram: the middle of what such parts have (common practice, no source). Each
 * part made from them is marked as assumed, which widens its tolerance.
 */

/** Elements of a pack from the slowest tap to the motor's, in ohms, by the number of its speeds below the strongest. */
const elementOhms: readonly (readonly number[])[] = [
  [],
  [0.9],
  [1.2, 0.55],
  [1.25, 0.65, 0.37],
  [1.1, 0.65, 0.4, 0.25],
  [1, 0.6, 0.4, 0.28, 0.2],
];

/** A pack's elements for a number of speeds below the strongest, in ohms, the slowest tap first. */
export function packOhms(lowerSpeeds: number): readonly number[] {
  const known = elementOhms[lowerSpeeds];
  if (known) return known;
  return Array.from({ length: lowerSpeeds }, (_, tap) => (0.9 * (lowerSpeeds - tap)) / lowerSpeeds + 0.1);
}

/**
 * A panel's command at off and at its first and strongest speeds, and where a control starts and is full on, in volts,
 * by the shape of the command.
 */
export const commandVolts = {
  rising: { off: 0, first: 1.6, full: 4.7, starts: 0.6, ends: 4.5 },
  falling: { off: 5, first: 3.4, full: 0.2, starts: 4.5, ends: 0.5 },
  wide: { off: 0, first: 3.4, full: 9.4, starts: 1, ends: 9 },
} as const;

export const assumedMotor = { ratedVolts: 13.5, ratedAmps: 18, stallAmps: 70, ratedRpm: 3300 } as const;
export const assumedRelay = { coilOhms: 85, pullInVolts: 7.5, contactOhms: 0.004 } as const;
export const assumedBattery = { restVolts: 12.6, chargingVolts: 14.2, ohms: 0.012 } as const;
export const assumedFuseAmps = { main: 80, blower: 30, control: 10 } as const;

import { type SeenCar, seenCarSchema } from "@core/wiring/seenCar";

/** The most speeds a form offers. */
export const mostSpeeds = 8;

const filled = (value: unknown): string | undefined =>
  typeof value === "string" && value !== "" ? value : undefined;

/** What a form says of a vehicle; what it leaves open is left out. Null if it cannot be read. */
export function seenCarFrom(fields: Readonly<Record<string, unknown>>): SeenCar | null {
  const told = {
    controls: filled(fields.controls),
    speeds: filled(fields.speeds) && Number(fields.speeds),
    speedPart: filled(fields.speedPart),
    blowers: filled(fields.blowers) && Number(fields.blowers),
    steering: filled(fields.steering),
  };
  const parsed = seenCarSchema.safeParse(
    Object.fromEntries(Object.entries(told).filter(([, value]) => value !== undefined)),
  );
  return parsed.success ? parsed.data : null;
}

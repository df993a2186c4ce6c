/** The vehicle's set-up, as its technician says. */
export interface ShownSetup {
  readonly key: "run" | "off";
  readonly engine: boolean;
  readonly setting: string;
  /** Plugs, fuses and relays that are removed. */
  readonly unplugged: readonly string[];
  /** The part a load lamp replaces. */
  readonly lampFor: string | null;
}

/** True for the set-ups whose states are on the page: nothing disconnected, no lamp, the engine off. */
export const isUsual = ({ engine, unplugged, lampFor }: ShownSetup): boolean =>
  !engine && unplugged.length === 0 && lampFor === null;

/** The set-up in a test's form: only what differs from the format's default. */
export function testSetup({ key, engine, setting, unplugged, lampFor }: ShownSetup): {
  key: ShownSetup["key"];
  engine?: true;
  setting: string;
  unplugged?: string[];
  lampFor?: string;
} {
  return {
    key,
    ...(engine ? { engine } : {}),
    setting,
    ...(unplugged.length > 0 ? { unplugged: [...unplugged] } : {}),
    ...(lampFor === null ? {} : { lampFor }),
  };
}

/** The set-up as the address of its states. */
export function setupQuery(setup: ShownSetup, faults: readonly string[]): string {
  const query = new URLSearchParams({ key: setup.key, setting: setup.setting });
  if (setup.engine) query.set("engine", "true");
  for (const id of setup.unplugged) query.append("unplugged", id);
  if (setup.lampFor) query.set("lampFor", setup.lampFor);
  for (const fault of faults) query.append("fault", fault);
  return query.toString();
}

/** Disconnects a plug, or reconnects it. */
export const withPlug = (setup: ShownSetup, id: string): ShownSetup => ({
  ...setup,
  unplugged: setup.unplugged.includes(id)
    ? setup.unplugged.filter((other) => other !== id)
    : [...setup.unplugged, id],
});

/** Turns the key; with the key off the engine does not run. */
export const withKey = (setup: ShownSetup, key: ShownSetup["key"]): ShownSetup => ({
  ...setup,
  key,
  engine: key === "run" && setup.engine,
});

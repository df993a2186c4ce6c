/** How the vehicle on the bench stands, as its technician says it does. */
export interface ShownSetup {
  readonly key: "run" | "off";
  readonly engine: boolean;
  readonly setting: string;
  /** Plugs, fuses and relays that are out. */
  readonly unplugged: readonly string[];
  /** Part whose place a load lamp has taken. */
  readonly lampFor: string | null;
}

/** True for the set-ups whose states the page has at hand: nothing pulled, no lamp, the engine off. */
export const isUsual = ({ engine, unplugged, lampFor }: ShownSetup): boolean =>
  !engine && unplugged.length === 0 && lampFor === null;

/** The set-up as looks carry it: only what is not the format's default. */
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

/** A plug pulled, or put back. */
export const withPlug = (setup: ShownSetup, id: string): ShownSetup => ({
  ...setup,
  unplugged: setup.unplugged.includes(id)
    ? setup.unplugged.filter((other) => other !== id)
    : [...setup.unplugged, id],
});

/** The key turned: without it no engine runs. */
export const withKey = (setup: ShownSetup, key: ShownSetup["key"]): ShownSetup => ({
  ...setup,
  key,
  engine: key === "run" && setup.engine,
});

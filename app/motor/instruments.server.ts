import { faultFromId } from "@core/fault/fault";
import { PracticeInstrument } from "@core/instrument/practiceInstrument";
import type { Netlist } from "@core/solve/netlist/netlist";
import { LRUCache } from "lru-cache";
import {
  askInstrument,
  askNumber,
  expectInstrument,
  type ServedInstrument,
  serveInstrument,
} from "../../server/instrumentSocket";
import { logger } from "../shell/log.server";

/** A job's practice instrument: a simulated vehicle with a fault, on a socket of its own. */
interface Attached {
  readonly instrument: PracticeInstrument;
  readonly served: ServedInstrument;
}

/** The most recently attached instruments, by job; the socket of one that is dropped is closed. */
const attached = new LRUCache<number, Attached>({
  max: 20,
  dispose: ({ served }) =>
    void served.close().catch((cause: unknown) => logger.error(cause, "an instrument's connection")),
});

/**
 * Attaches a practice instrument to a job and detaches the previous one.
 * @param fault the simulated vehicle's, or "" for a healthy one
 * @returns why it cannot be attached, or undefined
 */
export async function attachPractice(
  jobId: number,
  netlist: Netlist,
  fault: string,
): Promise<string | undefined> {
  const found = fault === "" ? null : faultFromId(netlist, fault);
  if (found && !found.ok) return found.problems[0]?.message ?? "That fault cannot be simulated.";
  const instrument = new PracticeInstrument({
    netlist,
    changes: found?.value.changes ?? [],
    modes: found?.value.names.map(({ mode }) => mode) ?? [],
    seed: jobId,
  });
  const served = await serveInstrument(instrument.device);
  served.unref();
  attached.set(jobId, { instrument, served });
  return undefined;
}

export const detachPractice = (jobId: number): void => void attached.delete(jobId);

/** The port of a job's practice instrument; null if none is attached. */
export const practicePort = (jobId: number): number | null => attached.get(jobId)?.served.port ?? null;

/** Where an instrument's leads or clamp are, and the vehicle's set-up. */
export interface Asked {
  readonly what: "volts" | "amps";
  readonly red: string;
  readonly black: string;
  readonly around: string;
  readonly key: "run" | "off";
  readonly engine: boolean;
  readonly setting: string;
}

/** A practice instrument is told where its leads are; a person moves those of a real one. */
const placing = ({ what, red, black, around, key, engine, setting }: Asked): string[] => [
  `PRAC:KEY ${key}`,
  `PRAC:SETT "${setting}"`,
  `PRAC:ENG ${engine ? "ON" : "OFF"}`,
  what === "volts" ? `PRAC:LEAD "${red}","${black}"` : `PRAC:CLAM "${around}"`,
];

const query = { volts: "MEAS:VOLT:DC?", amps: "MEAS:CURR:DC?" } as const;

/** Ports that a person has confirmed as an instrument's; nothing is sent to any other. */
const confirmed = new Set<number>();

/** Records a person's confirmation that an instrument listens on a port. */
export const confirmPort = (port: number): void => void confirmed.add(port);

export const isConfirmed = (port: number): boolean => confirmed.has(port);

/** One reading of an instrument, and which one it was; the instrument's own description is never shown. */
export async function readInstrument(
  port: number,
  practice: boolean,
  asked: Asked,
): Promise<{ value: number; source: string }> {
  await expectInstrument(port);
  const value = await askNumber(port, [...(practice ? placing(asked) : []), query[asked.what]]);
  return { value, source: practice ? "the practice instrument" : `the instrument on port ${port}` };
}

/** A recording from an instrument's scope, 32-bit floats little-endian. */
export async function readScope(
  port: number,
  practice: boolean,
  asked: Asked,
  { rateHz, samples }: { readonly rateHz: number; readonly samples: number },
): Promise<Buffer> {
  await expectInstrument(port);
  const lines = [
    ...(practice ? placing({ ...asked, what: "amps" }) : []),
    `MEAS:ARR:CURR? ${samples},${rateHz}`,
  ];
  const bytes = await askInstrument(port, lines, 20_000);
  return Buffer.from(bytes).swap32();
}

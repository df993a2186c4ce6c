import type { Writable } from "node:stream";
import type { Circuit } from "@core/circuit/circuit";
import { faultFromId } from "@core/fault/fault";
import { PracticeInstrument } from "@core/instrument/practiceInstrument";
import { ScpiError } from "@core/instrument/scpi";
import { buildNetlist } from "@core/solve/buildNetlist";
import { serveInstrument } from "../../server/instrumentSocket";
import { BadInput } from "../input";
import { accept } from "../output";

/** The options of `instrument` from the command line. */
export interface InstrumentFlags {
  readonly fault?: string;
  readonly key?: string;
  readonly engine?: boolean;
  readonly setting?: string;
  readonly port?: string;
}

const usualPort = 5025;

/**
 * A simulated meter, clamp and scope on a circuit with a fault, with SCPI on a loopback port until it is stopped.
 * Writes the port and the instrument's identification as one line of JSON.
 */
export async function attachInstrument(
  circuit: Circuit,
  flags: InstrumentFlags,
  output: Writable,
): Promise<void> {
  const netlist = accept(buildNetlist(circuit));
  const fault = flags.fault === undefined ? null : accept(faultFromId(netlist, flags.fault));
  const port = flags.port === undefined ? usualPort : Number(flags.port);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new BadInput(`--port: expected a whole number from 0 to 65535, got ${JSON.stringify(flags.port)}`);
  const instrument = new PracticeInstrument({
    netlist,
    changes: fault?.changes ?? [],
    modes: fault?.names.map(({ mode }) => mode) ?? [],
  });
  try {
    instrument.set({
      key: (flags.key ?? "run") as "run",
      engine: flags.engine ?? false,
      ...(flags.setting === undefined ? {} : { setting: flags.setting }),
    });
  } catch (error) {
    if (error instanceof ScpiError) throw new BadInput(error.message);
    throw error;
  }
  const served = await serveInstrument(instrument.device, port).catch((error: unknown) => {
    const { code = "error" } = error as NodeJS.ErrnoException;
    throw new BadInput(`--port: ${port} cannot be listened on (${code})`);
  });
  output.write(`${JSON.stringify({ port: served.port, identity: "Airway,Practice instrument,0,1" })}\n`);
}

import { createServer, type Server, Socket } from "node:net";
import { blockBytes, type ScpiDevice } from "@core/instrument/scpi";

const loopback = "127.0.0.1";
const longestLine = 4096;
/** How an HTTP request begins: a web page that connects to this port is disconnected before it can send a command. */
const httpRequest = /^[A-Z]+ \S+ HTTP\/\d/;

/** An instrument on a socket: one line in, one answer out, with any number of connections. */
export interface ServedInstrument {
  readonly port: number;
  /** Lets the process end while the instrument is listening. */
  unref(): void;
  close(): Promise<void>;
}

/**
 * Puts an instrument on a loopback port.
 * @param port 0 for any free one
 */
export function serveInstrument(device: ScpiDevice, port = 0): Promise<ServedInstrument> {
  const callers = new Set<Socket>();
  const server: Server = createServer((socket) => {
    callers.add(socket);
    let text = "";
    socket.setNoDelay(true);
    socket.on("data", (chunk) => {
      text += chunk.toString("latin1");
      if (text.length > longestLine && !text.includes("\n")) {
        socket.destroy();
        return;
      }
      const lines = text.split("\n");
      text = lines.pop() ?? "";
      for (const line of lines) {
        if (httpRequest.test(line)) {
          socket.destroy();
          return;
        }
        const answer = device.answer(line.replace(/\r$/, ""));
        if (answer) socket.write(answer);
      }
    });
    socket.on("error", () => socket.destroy());
    socket.on("close", () => callers.delete(socket));
  });
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, loopback, () => {
      const address = server.address();
      resolve({
        port: typeof address === "object" && address ? address.port : port,
        unref: () => void server.unref(),
        close: () =>
          new Promise((done) => {
            for (const caller of callers) caller.destroy();
            server.close(() => done());
          }),
      });
    });
  });
}

export const answerWithin = 5000;
/** Largest block in bytes that can be a recording. */
const mostBytes = 48 * 1024 * 1024;

/** What went wrong with an instrument, in words for the user. */
export class InstrumentProblem extends Error {}

/**
 * Sends lines to an instrument on a loopback port and returns its answer to the last one.
 * @throws InstrumentProblem if nothing listens, nothing answers in time, or the answer makes no sense
 */
export function askInstrument(
  port: number,
  lines: readonly string[],
  within = answerWithin,
): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = new Socket();
    const chunks: Buffer[] = [];
    let length = 0;
    const end = (work: () => void): void => {
      clearTimeout(timer);
      socket.destroy();
      work();
    };
    const fail = (words: string): void => end(() => reject(new InstrumentProblem(words)));
    const timer = setTimeout(() => fail(`Port ${port} gave no answer within ${within / 1000} s.`), within);
    socket.on("error", (error: NodeJS.ErrnoException) =>
      fail(
        error.code === "ECONNREFUSED"
          ? `Nothing is listening on port ${port}. Check that the instrument or its bridge is running.`
          : `Port ${port} cannot be reached (${error.code ?? "no reason given"}).`,
      ),
    );
    socket.on("close", () => fail(`Port ${port} closed the connection before it answered.`));
    socket.on("data", (chunk) => {
      chunks.push(chunk);
      length += chunk.length;
      if (length > mostBytes) return fail(`Port ${port} sent more than a recording can hold.`);
      const whole = chunks.length === 1 ? (chunks[0] as Buffer) : Buffer.concat(chunks);
      if (chunks.length > 1) chunks.splice(0, chunks.length, whole);
      if (whole[0] !== 35) {
        const at = whole.indexOf(10);
        if (at >= 0) end(() => resolve(whole.subarray(0, at)));
        return;
      }
      try {
        const block = blockBytes(whole);
        if (block) end(() => resolve(Buffer.from(block.data)));
      } catch {
        fail(`Port ${port} sent a block that could not be read.`);
      }
    });
    socket.connect(port, loopback, () => void socket.write(`${lines.join("\n")}\n`));
  });
}

/** Maker, model, serial number and firmware, separated by commas (IEEE 488.2, `*IDN?`). */
const identity = /^[ -+\--~]+(?:,[ -+\--~]*){3}\s*$/;

/**
 * Asks whether an instrument listens on a port, before anything else is sent to it.
 * @throws InstrumentProblem if there is none
 */
export async function expectInstrument(port: number): Promise<void> {
  const answer = (await askInstrument(port, ["*IDN?"])).toString("latin1");
  if (!identity.test(answer))
    throw new InstrumentProblem(`The program on port ${port} is not an instrument.`);
}

/**
 * An instrument's answer as a number.
 * @throws InstrumentProblem if it is not one
 */
export async function askNumber(port: number, lines: readonly string[]): Promise<number> {
  const text = (await askInstrument(port, lines)).toString("latin1").trim();
  const value = Number(text);
  if (text === "" || !Number.isFinite(value) || Math.abs(value) > 1e6)
    throw new InstrumentProblem(`The answer from port ${port} is not a reading.`);
  return value;
}

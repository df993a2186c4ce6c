import { createServer, type Server } from "node:net";
import { definiteBlock, ScpiDevice } from "@core/instrument/scpi";
import { afterEach, describe, expect, test } from "@jest/globals";
import { askInstrument, askNumber, expectInstrument, serveInstrument } from "./instrumentSocket";

const closing: (() => Promise<unknown>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

const device = (): ScpiDevice =>
  new ScpiDevice("Maker,Model,1,2", () => undefined, [
    { header: "MEASure:VOLTage[:DC]?", run: () => "+1.250000E+01" },
    { header: "MEASure:WORD?", run: () => "soon" },
    { header: "TRACe?", run: () => definiteBlock(new Uint8Array(200_000).fill(10)) },
  ]);

async function served(): Promise<number> {
  const own = await serveInstrument(device());
  closing.push(() => own.close());
  return own.port;
}

/** A socket that gives the same answer to everything, or none. */
async function dumb(answer: string | null): Promise<number> {
  const server: Server = createServer((socket) => {
    socket.on("error", () => undefined);
    socket.on("data", () => (answer === null ? undefined : socket.end(answer)));
  });
  await new Promise<void>((resolve) => void server.listen(0, "127.0.0.1", resolve));
  closing.push(() => new Promise((done) => void server.close(done)));
  const address = server.address();
  return typeof address === "object" && address ? address.port : 0;
}

describe("an instrument on a loopback socket", () => {
  test("answers a line, a number, and a block of many pieces", async () => {
    const port = await served();
    expect((await askInstrument(port, ["*IDN?"])).toString()).toBe("Maker,Model,1,2");
    expect(await askNumber(port, ["MEAS:VOLT:DC?"])).toBe(12.5);
    expect(await askInstrument(port, ["TRAC?"])).toHaveLength(200_000);
  });

  test("many callers at once each get their own answer", async () => {
    const port = await served();
    const answers = await Promise.all(Array.from({ length: 20 }, () => askNumber(port, ["MEAS:VOLT?"])));
    expect(new Set(answers)).toEqual(new Set([12.5]));
  });

  test("a page that posts commands to it is hung up on, and none is done", async () => {
    const port = await served();
    const body = "*IDN?\nMEAS:VOLT?\n";
    for (const path of ["/", "/MEAS:VOLT?"])
      await expect(
        fetch(`http://127.0.0.1:${port}${path}`, { method: "POST", body }).then((answer) => answer.text()),
      ).rejects.toThrow();
    const said = await askInstrument(port, [`POST / HTTP/1.1`, "Host: x", "", "*IDN?"]).catch(String);
    expect(said).toContain("closed the connection before it answered");
  });

  test("what goes wrong is told in words", async () => {
    const port = await served();
    await expect(askNumber(port, ["MEAS:WORD?"])).rejects.toThrow(
      `The answer from port ${port} is not a reading.`,
    );
    await expect(askInstrument(port, ["NO:SUCH?"], 200)).rejects.toThrow("gave no answer");
    await expect(askInstrument(await dumb("#x"), ["A?"])).rejects.toThrow("a block that could not be read");
    await expect(askInstrument(await dumb("half"), ["A?"])).rejects.toThrow(
      "closed the connection before it answered",
    );
    const banner = await dumb("220 mail.example ESMTP <b>ready</b>\n");
    await expect(expectInstrument(banner)).rejects.toThrow(
      `The program on port ${banner} is not an instrument.`,
    );
    await expect(expectInstrument(port)).resolves.toBeUndefined();
    const gone = await serveInstrument(device());
    await gone.close();
    await expect(askInstrument(gone.port, ["*IDN?"])).rejects.toThrow("Nothing is listening on port");
  });
});

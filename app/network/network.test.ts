// The door to the shop's network: its certificates, the devices that were paired, the code that pairs one, and the
// listener itself.
import { X509Certificate } from "node:crypto";
import { EventEmitter } from "node:events";
import { statSync } from "node:fs";
import { get } from "node:https";
import { join } from "node:path";
import { addPerson } from "@db/people/people.server";
import { privateFolder } from "@db/people/privateFile.server";
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { describe, expect, test } from "@jest/globals";
import { announcedName, announceName, type NameQuestions } from "./announcedName.server";
import { fingerprintOf, serverCertificate, shopAuthority } from "./authority.server";
import { addDevice, deviceWith, pairedDevices, removeDevice } from "./devices.server";
import { makeNetworkDoor, ownNames } from "./networkDoor.server";
import { endPairingCode, makePairingCode, pairingCode, usePairingCode } from "./pairingCode.server";
import { scannedPicture } from "./phonesView.server";

useEmptyDataFolder();

const day = 86_400_000;

describe("the shop's authority", () => {
  test("is made once, may sign and nothing else, and its key is for the server's own user", async () => {
    const first = await shopAuthority();
    expect(await shopAuthority()).toEqual(first);
    const own = new X509Certificate(first.cert);
    expect(own.ca).toBe(true);
    expect(own.checkIssued(own)).toBe(true);
    expect(fingerprintOf(first.cert)).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
    expect(statSync(privateFolder()).mode & 0o777).toBe(0o700);
    expect(statSync(join(privateFolder(), "authority.key")).mode & 0o777).toBe(0o600);
  });

  // RFC 6125 and RFC 5280: a client checks the name it called among the subject's alternative names.
  test("signs a certificate for the names and addresses asked, and no other", async () => {
    const authority = new X509Certificate((await shopAuthority()).cert);
    const own = new X509Certificate((await serverCertificate(["bench.local", "192.0.2.7"])).cert);
    expect(own.verify(authority.publicKey)).toBe(true);
    expect(own.ca).toBe(false);
    expect(own.checkHost("bench.local")).toBe("bench.local");
    expect(own.checkIP("192.0.2.7")).toBe("192.0.2.7");
    expect(own.checkHost("elsewhere.local")).toBeUndefined();
    expect(own.checkIP("192.0.2.8")).toBeUndefined();
  });

  test("signs a new one only when the names change or it ends soon, and stays the same itself", async () => {
    const names = ["bench.local", "192.0.2.7"];
    const authority = await shopAuthority();
    const first = await serverCertificate(names);
    expect(await serverCertificate(names)).toEqual(first);
    const moved = await serverCertificate(["bench.local", "192.0.2.99"]);
    expect(moved.cert).not.toBe(first.cert);
    const later = await serverCertificate(["bench.local", "192.0.2.99"], new Date(Date.now() + 370 * day));
    expect(later.cert).not.toBe(moved.cert);
    expect(await shopAuthority()).toEqual(authority);
  });
});

describe("a paired device", () => {
  test("is known by its token, which is not kept, until it is removed", () => {
    const token = addDevice("bay 2 tablet");
    addDevice("the other one");
    expect(deviceWith(token)?.name).toBe("bay 2 tablet");
    expect(deviceWith(`${token}x`)).toBeNull();
    expect(JSON.stringify(pairedDevices())).not.toContain(token);
    removeDevice(deviceWith(token)?.id ?? "");
    expect(deviceWith(token)).toBeNull();
    expect(pairedDevices().map(({ name }) => name)).toEqual(["the other one"]);
  });

  test("is listed with its last use, to the minute", () => {
    const paired = new Date("2026-11-30T08:00:00Z");
    const token = addDevice("bay 2 tablet", paired);
    deviceWith(token, new Date("2026-11-30T08:00:30Z"));
    expect(pairedDevices()[0]?.seenAt).toBe("2026-11-30T08:00:00.000Z");
    deviceWith(token, new Date("2026-11-30T09:30:00Z"));
    expect(pairedDevices()[0]?.seenAt).toBe("2026-11-30T09:30:00.000Z");
  });
});

describe("a pairing code", () => {
  const at = Date.parse("2026-11-30T08:00:00Z");
  /** A code that is certainly not the one. */
  const other = (code: string): string => String((Number(code) + 1) % 1e8).padStart(8, "0");

  test("works once, typed with or without its space", () => {
    const code = makePairingCode(at);
    expect(code).toMatch(/^\d{8}$/);
    expect(usePairingCode(`${code.slice(0, 4)} ${code.slice(4)}`, at + 1)).toBe("right");
    expect(usePairingCode(code, at + 2)).toBe("none");
  });

  test("ends after ten minutes, when it is taken back, and when another is made", () => {
    const late = makePairingCode(at);
    expect(pairingCode(at + 599_999)?.code).toBe(late);
    expect(usePairingCode(late, at + 600_000)).toBe("none");
    const back = makePairingCode(at);
    endPairingCode();
    expect(usePairingCode(back, at)).toBe("none");
    const first = makePairingCode(at);
    const second = makePairingCode(at);
    if (first !== second) expect(usePairingCode(first, at)).toBe("wrong");
    expect(usePairingCode(second, at)).toBe("right");
  });

  test("is void after ten wrong guesses, so that the right one no longer helps", () => {
    const code = makePairingCode(at);
    for (let guess = 0; guess < 10; guess++) expect(usePairingCode(other(code), at)).toBe("wrong");
    expect(usePairingCode(code, at)).toBe("none");
  });
});

describe("the listener", () => {
  const settings = { port: 0, certificate: null, names: [] };
  const named = () => addPerson("Front desk", "owner", "123456");

  test("stays closed while nobody could sign in", async () => {
    const door = makeNetworkDoor(settings, () => undefined);
    expect((await door.open())?.problem).toMatch(/^First add yourself/);
    expect([door.isOpen, door.wasOpen()]).toEqual([false, false]);
  });

  test("opens, remembers it, and closes for good", async () => {
    await named();
    const door = makeNetworkDoor(settings, (_request, response) => void response.end("in"));
    expect(door.wasOpen()).toBe(false);
    expect(door.addresses).toEqual([]);
    expect(await door.open()).toBeNull();
    expect(door.isOpen && door.wasOpen()).toBe(true);
    expect(door.hosts).toEqual(expect.arrayContaining([...ownNames(), "127.0.0.1"]));
    expect(door.addresses.every((address) => /^https:\/\/(?!127)/.test(address))).toBe(true);
    // Stopping the server does not close the door; closing it does.
    door.stop();
    expect(door.isOpen).toBe(false);
    expect(door.wasOpen()).toBe(true);
    door.close();
    expect(door.wasOpen()).toBe(false);
  });

  test("answers in a connection that a client who trusts the authority accepts, and no other client", async () => {
    await named();
    const port = 45_311;
    const door = makeNetworkDoor({ ...settings, port }, (_request, response) => void response.end("in"));
    expect(await door.open()).toBeNull();
    const ask = (ca: string | undefined) =>
      new Promise<string>((resolve) => {
        get({ host: "127.0.0.1", port, path: "/", agent: false, ...(ca ? { ca } : {}) }, (response) => {
          response.setEncoding("utf8");
          response.on("data", (text: string) => resolve(text));
        }).once("error", (error: NodeJS.ErrnoException) => resolve(error.code ?? "refused"));
      });
    expect(await ask((await shopAuthority()).cert)).toBe("in");
    expect(await ask(undefined)).toMatch(/SELF_SIGNED|UNABLE_TO/);
    const second = makeNetworkDoor({ ...settings, port }, () => undefined);
    expect((await second.open())?.problem).toMatch(/^Port 45311 is taken/);
    door.close();
  });
});

// ISO/IEC 18004, 6.3.3: three finder patterns, in all corners but the lower right, inside a margin of four squares.
test("the picture to scan has its finder patterns", () => {
  const { path, size } = scannedPicture("https://192.0.2.2:4311/pair?code=12345678");
  const dark = new Set(path.match(/(?<=M)\d+ \d+/g));
  const corner = (x: number, y: number): boolean =>
    [0, 1, 2, 3, 4, 5, 6].every((at) => dark.has(`${x + at} ${y}`) && dark.has(`${x} ${y + at}`));
  expect(corner(4, 4) && corner(size - 11, 4) && corner(4, size - 11)).toBe(true);
  expect(corner(size - 11, size - 11)).toBe(false);
});

// RFC 6762: a query for a name in .local is answered by the computer that has the name, with its addresses.
describe("the name in the shop's network", () => {
  const asked = (name: string, type = "A") => {
    const network = new EventEmitter() as EventEmitter & NameQuestions;
    const answers: unknown[] = [];
    let failures = 0;
    Object.assign(network, {
      respond: (answer: { answers: unknown[] }) => answers.push(...answer.answers),
      destroy: () => network.removeAllListeners(),
    });
    const addresses = ["192.0.2.7"];
    const stop = announceName(
      "airway-bench.local",
      () => addresses,
      () => {
        failures += 1;
      },
      () => network,
    );
    network.emit("query", { questions: [{ name, type }] });
    return { answers, stop, network, addresses, failures: () => failures };
  };

  test("is answered in any case, with the address of the moment, until it is stopped", () => {
    const { answers, stop, network, addresses } = asked("Airway-Bench.local");
    expect(answers).toEqual([{ name: "airway-bench.local", type: "A", ttl: 120, data: "192.0.2.7" }]);
    addresses[0] = "192.0.2.99";
    network.emit("query", { questions: [{ name: "airway-bench.local", type: "ANY" }] });
    expect(answers.at(-1)).toMatchObject({ data: "192.0.2.99" });
    stop();
    network.emit("query", { questions: [{ name: "airway-bench.local", type: "A" }] });
    expect(answers).toHaveLength(2);
  });

  test("other names and other questions are left to others", () => {
    expect(asked("printer.local").answers).toEqual([]);
    expect(asked("airway-bench.local", "PTR").answers).toEqual([]);
  });

  test("is of no use where the network cannot be asked that way, and says so", () => {
    const { network, failures } = asked("printer.local");
    network.emit("error", new Error("ENODEV"));
    expect(failures()).toBe(1);
  });

  test.each([
    ["Office.lan", "airway-office.local"],
    ["vm", "airway-vm.local"],
    ["bay № 1", "airway.local"],
  ])("of %s is %s", (host, name) => {
    expect(announcedName(host)).toBe(name);
  });
});

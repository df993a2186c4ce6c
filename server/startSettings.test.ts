import { describe, expect, test } from "@jest/globals";
import { startSettings } from "./startSettings";

describe("what a server is started with", () => {
  test("is loopback and needs no passcode, unless it is told otherwise", () => {
    expect(startSettings({})).toEqual({
      ok: true,
      value: {
        host: "127.0.0.1",
        port: 4310,
        networkPort: 4311,
        certificateFiles: null,
        allowedHosts: new Set(),
        passcode: null,
      },
    });
  });

  test("opens to the network only with names and a passcode", () => {
    const open = { AIRWAY_HOST: "0.0.0.0", AIRWAY_ALLOWED_HOSTS: " Workshop.local, 192.168.1.20 " };
    expect(startSettings({ ...open, AIRWAY_PASSCODE: "correct horse" })).toMatchObject({
      ok: true,
      value: { allowedHosts: new Set(["workshop.local", "192.168.1.20"]), passcode: "correct horse" },
    });
  });

  test.each<[Record<string, string>, RegExp]>([
    [{ AIRWAY_PORT: "eighty" }, /^AIRWAY_PORT must be a whole number from 0 to 65535, not "eighty"/],
    [{ AIRWAY_PORT: "" }, /^AIRWAY_PORT must be/],
    [{ AIRWAY_PORT: "70000" }, /^AIRWAY_PORT must be/],
    [{ AIRWAY_NETWORK_PORT: "phones" }, /^AIRWAY_NETWORK_PORT must be a whole number/],
    [{ AIRWAY_CERTIFICATE: "shop.crt" }, /must be given together/],
    [{ AIRWAY_ZONE: "Mars/Olympus" }, /^AIRWAY_ZONE must be a time zone/],
    [{ AIRWAY_HOST: "0.0.0.0" }, /AIRWAY_ALLOWED_HOSTS/],
    [{ AIRWAY_HOST: "0.0.0.0", AIRWAY_ALLOWED_HOSTS: "a.local" }, /at least 8 characters in AIRWAY_PASSCODE/],
    [
      { AIRWAY_HOST: "0.0.0.0", AIRWAY_ALLOWED_HOSTS: "a.local", AIRWAY_PASSCODE: "short" },
      /at least 8 characters in AIRWAY_PASSCODE/,
    ],
  ])("%j is refused in words", (environment, problem) => {
    expect(startSettings(environment)).toEqual({ ok: false, problem: expect.stringMatching(problem) });
  });
});

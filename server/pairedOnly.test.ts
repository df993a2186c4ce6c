// Who passes the network's door: every page of the application is asked for, by a stranger and by a paired device.
import { useEmptyDataFolder } from "@db/testing/dataFolder";
import { describe, expect, test } from "@jest/globals";
import type { RouteConfigEntry } from "@react-router/dev/routes";
import type { Request, Response } from "express";
import { tokenCookie } from "../app/network/deviceCookie.server";
import { addDevice, pairedDevices, removeDevice } from "../app/network/devices.server";
import routes from "../app/routes";
import { pairedOnly } from "./pairedOnly";

useEmptyDataFolder();

/** The addresses of every route, with 1 for what varies. */
function addressesOf(entries: readonly RouteConfigEntry[], parent = ""): string[] {
  return entries.flatMap(({ path, children, index }) => {
    const own = path ? `${parent}/${path.replace(/:\w+\??/g, "1").replace("*", "nowhere")}` : parent;
    return [...(path || index ? [own || "/"] : []), ...addressesOf(children ?? [], own)];
  });
}
const addresses = [...new Set(addressesOf(routes))];

/** What the door does with a request: lets it through, sends it to the pairing page, or refuses it. */
async function asked(path: string, method = "GET", cookie?: string): Promise<string> {
  let answer = "";
  const response = {
    redirect: (status: number, to: string) => {
      answer = `${status} ${to}`;
    },
    status: (code: number) => {
      answer = String(code);
      return response;
    },
    type: () => response,
    send: () => response,
  };
  const request = { path, method, headers: { cookie }, accepts: () => true };
  await pairedOnly(request as unknown as Request, response as unknown as Response, () => {
    answer = "through";
  });
  return answer;
}

const forStrangers = new Set(["/pair", "/authority.crt"]);

describe("the network's door", () => {
  test("knows the application's routes", () => {
    expect(addresses.length).toBeGreaterThan(50);
    for (const some of ["/", "/jobs/1/probe", "/jobs/1/entries", "/settings", "/records/keeping/1", "/pair"])
      expect(addresses).toContain(some);
  });

  test.each(addresses.filter((path) => !forStrangers.has(path)))(
    "%s is closed to strangers",
    async (path) => {
      expect(await asked(path)).toBe("303 /pair");
      expect(await asked(`${path}.data`)).toBe("303 /pair");
      for (const method of ["POST", "PUT", "DELETE"]) expect(await asked(path, method)).toBe("401");
      expect(await asked(path, "GET", "__Host-airway-device=Zm9yZ2Vk")).toBe("303 /pair");
    },
  );

  test("lets strangers have the pairing page, the authority to trust, and what they look like", async () => {
    for (const path of [...forStrangers, "/pair.data", "/assets/app.css", "/favicon.svg"])
      expect(await asked(path)).toBe("through");
    expect(await asked("/pair", "POST")).toBe("through");
    expect(await asked("/pair/../jobs/1")).toBe("303 /pair");
  });

  test("lets a paired device through until it is removed", async () => {
    const cookie = (await tokenCookie(addDevice("bay 2 tablet"))).split(";")[0];
    expect(await asked("/jobs/1/entries", "POST", cookie)).toBe("through");
    removeDevice(pairedDevices()[0]?.id ?? "");
    expect(await asked("/jobs/1/entries", "POST", cookie)).toBe("401");
  });

  // RFC 6265bis: the prefix makes a browser refuse the cookie without encryption, from another host or for a part of it.
  test("gives a device a cookie that scripts and other sites cannot use", async () => {
    expect(await tokenCookie("x")).toMatch(
      /^__Host-airway-device=.*; Max-Age=\d+; Path=\/; HttpOnly; Secure; SameSite=Strict$/,
    );
  });
});

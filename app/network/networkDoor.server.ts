import type { RequestListener } from "node:http";
import { createServer, type Server } from "node:https";
import { isIP } from "node:net";
import { hostname, networkInterfaces } from "node:os";
import { allPeople } from "@db/people/people.server";
import { readPrivate, writePrivate } from "@db/people/privateFile.server";
import { z } from "zod";
import { announcedName, announceName } from "./announcedName.server";
import { type KeyedCertificate, serverCertificate } from "./authority.server";

/** How the door to the shop's network is opened, from the settings of the start. */
export interface NetworkDoorSettings {
  readonly port: number;
  /** A certificate of the shop's own, used instead of one signed by Airway's authority. */
  readonly certificate: KeyedCertificate | null;
  /** Names that certificate is for, besides the machine's own. */
  readonly names: readonly string[];
}

/** Why the door did not open. */
export interface DoorProblem {
  readonly problem: string;
}

const file = "door.json";
const doorFile = z.strictObject({ open: z.boolean() });

/** New addresses of this computer are noticed this often. */
const lookMilliseconds = 60_000;

/** What this computer calls itself. */
const loopbackNames = ["localhost", "127.0.0.1"];

/** Addresses of this computer in its networks, and the names it is called by there. */
export function ownNames(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).flatMap(({ address, internal, family }) => (internal || family !== "IPv4" ? [] : [address])),
  );
  const name = hostname().toLowerCase().replace(/\..*$/, "");
  const isName = /^[a-z0-9-]{1,63}$/.test(name);
  return [...(isName ? [`${name}.local`, name] : []), ...addresses];
}

/** The encrypted listener for the shop's network. It does not listen until somebody opens it. */
class NetworkDoor {
  private server: Server | null = null;
  private looking: NodeJS.Timeout | null = null;
  private names: readonly string[] = [];
  /** Ends the announcement of its name; null while it is not announced. */
  private silence: (() => void) | null = null;

  constructor(
    private readonly settings: NetworkDoorSettings,
    private readonly handler: RequestListener,
  ) {}

  /** Whether it listens. */
  get isOpen(): boolean {
    return this.server !== null;
  }

  /** Whether it shows a certificate of the shop's own. */
  get hasOwnCertificate(): boolean {
    return this.settings.certificate !== null;
  }

  /** Names and addresses it answers to. */
  get hosts(): readonly string[] {
    return this.names;
  }

  /** Addresses to open it with, the one for a phone to scan first; none while it is closed. */
  get addresses(): string[] {
    if (!this.isOpen) return [];
    const away = this.names.filter((name) => !loopbackNames.includes(name) && name !== announcedName());
    const announced = this.silence && !this.hasOwnCertificate ? [announcedName()] : [];
    const named = [...this.settings.names, ...announced, ...away.filter((name) => isIP(name)), ...away];
    return [...new Set(named)].map((name) => `https://${name}:${this.settings.port}/`);
  }

  /** Listens from now on, and after each start until it is closed; refused while nobody could sign in. */
  async open(): Promise<DoorProblem | null> {
    if (this.server) return null;
    if (allPeople().length === 0)
      return {
        problem:
          "First add yourself under Settings, Phones and people: on phones and tablets everybody signs in.",
      };
    this.names = this.allNames();
    const server = createServer(await this.certificate(), (request, response) =>
      this.handler(request, response),
    );
    const problem = await new Promise<DoorProblem | null>((resolve) => {
      server.once("error", (error: NodeJS.ErrnoException) =>
        resolve({
          problem:
            error.code === "EADDRINUSE"
              ? `Port ${this.settings.port} is taken by another program. Start Airway with AIRWAY_NETWORK_PORT set to another one.`
              : `Airway cannot listen on port ${this.settings.port} (${error.code ?? error.message}).`,
        }),
      );
      server.listen(this.settings.port, () => resolve(null));
    });
    if (problem) return problem;
    this.server = server;
    this.looking = setInterval(() => void this.look(), lookMilliseconds);
    this.looking.unref();
    this.silence = announceName(
      announcedName(),
      () => this.names.filter((name) => isIP(name) && !loopbackNames.includes(name)),
      () => {
        this.silence?.();
        this.silence = null;
      },
    );
    writePrivate(file, JSON.stringify({ open: true }));
    return null;
  }

  /** Stops listening, and stays closed after the next start. */
  close(): void {
    writePrivate(file, JSON.stringify({ open: false }));
    this.stop();
  }

  /** Stops listening; what was chosen stays. */
  stop(): void {
    if (this.looking) clearInterval(this.looking);
    this.looking = null;
    this.silence?.();
    this.silence = null;
    this.server?.close();
    this.server?.closeAllConnections();
    this.server = null;
  }

  /** Whether it was open when the server last ran. */
  wasOpen(): boolean {
    const kept = readPrivate(file);
    return kept !== null && doorFile.parse(JSON.parse(kept)).open;
  }

  private allNames(): string[] {
    return [...new Set([...this.settings.names, announcedName(), ...ownNames(), ...loopbackNames])];
  }

  private certificate(): Promise<KeyedCertificate> | KeyedCertificate {
    return this.settings.certificate ?? serverCertificate(this.names);
  }

  /** The router may give this computer a new address: the certificate then follows. */
  private async look(): Promise<void> {
    const names = this.allNames();
    if (names.join() === this.names.join()) return;
    this.names = names;
    this.server?.setSecureContext(await this.certificate());
  }
}

export type { NetworkDoor };

let door: NetworkDoor | null = null;

/**
 * Makes the door, closed, once the server can answer.
 * @param handler answers the requests that come through it
 */
export function makeNetworkDoor(settings: NetworkDoorSettings, handler: RequestListener): NetworkDoor {
  door = new NetworkDoor(settings, handler);
  return door;
}

/** The door to the shop's network; null where there is no server behind it, as in a test of a page. */
export const networkDoor = (): NetworkDoor | null => door;

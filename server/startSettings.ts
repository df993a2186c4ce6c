import { z } from "zod";

const loopbackNames = new Set(["localhost", "127.0.0.1", "::1"]);

/** How a server is started: where it listens, to which names it answers, and its passcode. */
export interface StartSettings {
  readonly host: string;
  readonly port: number;
  /** Names it answers to when it listens beyond this computer; loopback names always count. */
  readonly allowedHosts: ReadonlySet<string>;
  /** The passcode for signing in; null on loopback, where none is needed. */
  readonly passcode: string | null;
  /** The port of the encrypted listener for the shop's network, should somebody open it. */
  readonly networkPort: number;
  /** Files of a certificate of the shop's own and its key; null to have Airway make one. */
  readonly certificateFiles: { readonly cert: string; readonly key: string } | null;
}

export type StartParsed =
  | { readonly ok: true; readonly value: StartSettings }
  | { readonly ok: false; readonly problem: string };

const leastPasscode = 8;

const refused = (problem: string): StartParsed => ({ ok: false, problem });

/** Whether an address is this computer's own. */
export const isLoopback = (host: string): boolean => loopbackNames.has(host.toLowerCase());

function portFrom(text: string): number | null {
  const port = z.coerce
    .number()
    .int()
    .min(0)
    .max(65_535)
    .safeParse(text === "" ? Number.NaN : text);
  return port.success ? port.data : null;
}

const portWords = (name: string, text: string): string =>
  `${name} must be a whole number from 0 to 65535, not ${JSON.stringify(text)}.`;

/** Reads the settings of a start; the first invalid one is reported in words. */
export function startSettings(environment: Readonly<Record<string, string | undefined>>): StartParsed {
  const {
    AIRWAY_HOST: host = "127.0.0.1",
    AIRWAY_PORT: portText = "4310",
    AIRWAY_NETWORK_PORT: networkPortText = "4311",
    AIRWAY_ZONE: zone,
    AIRWAY_ALLOWED_HOSTS: hosts = "",
    AIRWAY_PASSCODE: passcode,
    AIRWAY_CERTIFICATE: cert,
    AIRWAY_CERTIFICATE_KEY: key,
  } = environment;
  const port = portFrom(portText);
  if (port === null) return refused(portWords("AIRWAY_PORT", portText));
  const networkPort = portFrom(networkPortText);
  if (networkPort === null) return refused(portWords("AIRWAY_NETWORK_PORT", networkPortText));
  if ((cert === undefined) !== (key === undefined))
    return refused(
      "AIRWAY_CERTIFICATE and AIRWAY_CERTIFICATE_KEY must be given together: a file each, in PEM.",
    );
  const certificateFiles = cert !== undefined && key !== undefined ? { cert, key } : null;
  if (zone !== undefined && !isZone(zone))
    return refused(`AIRWAY_ZONE must be a time zone such as Europe/Lisbon, not ${JSON.stringify(zone)}.`);
  const allowedHosts = new Set(
    hosts
      .split(",")
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ""),
  );
  const listening = { host, port, networkPort, certificateFiles };
  if (isLoopback(host))
    return { ok: true, value: { ...listening, allowedHosts, passcode: passcode ?? null } };
  if (allowedHosts.size === 0)
    return refused(
      `AIRWAY_HOST=${host} opens Airway to the network. List the host names people will use, as in AIRWAY_ALLOWED_HOSTS=workshop.local,192.168.1.20`,
    );
  if (passcode === undefined || passcode.length < leastPasscode)
    return refused(
      `AIRWAY_HOST=${host} opens Airway to the network. Set a passcode of at least ${leastPasscode} characters in AIRWAY_PASSCODE.`,
    );
  return { ok: true, value: { ...listening, allowedHosts, passcode } };
}

function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat("en-GB", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

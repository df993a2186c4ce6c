import { hostname } from "node:os";
import multicastDns from "multicast-dns";

/** What an announcement needs of multicast DNS. */
export interface NameQuestions {
  on(event: "query", listener: (query: { readonly questions: readonly NameQuestion[] }) => void): unknown;
  on(event: "error", listener: (error: Error) => void): unknown;
  respond(response: {
    readonly answers: {
      readonly name: string;
      readonly type: "A";
      readonly ttl: number;
      readonly data: string;
    }[];
  }): unknown;
  destroy(): unknown;
}
interface NameQuestion {
  readonly name: string;
  readonly type: string;
}

const ttlSeconds = 120;

/** The name this computer has in the shop's network, whatever its address: `airway-office.local`. */
export function announcedName(host = hostname()): string {
  const own = host.toLowerCase().replace(/\..*$/, "");
  return /^[a-z0-9-]{1,50}$/.test(own) ? `airway-${own}.local` : "airway.local";
}

/**
 * Answers whoever asks the network for a name (multicast DNS, RFC 6762), until it is stopped.
 * @param addresses of this computer now
 * @param onFailure called if multicast DNS does not work on this computer, so that nobody can find it by the name
 * @returns stops it
 */
export function announceName(
  name: string,
  addresses: () => readonly string[],
  onFailure: () => void,
  open: () => NameQuestions = () => multicastDns(),
): () => void {
  const network = open();
  network.on("error", onFailure);
  network.on("query", ({ questions }) => {
    const isAsked = questions.some(
      ({ name: asked, type }) => asked.toLowerCase() === name && (type === "A" || type === "ANY"),
    );
    if (isAsked)
      network.respond({ answers: addresses().map((data) => ({ name, type: "A", ttl: ttlSeconds, data })) });
  });
  return () => void network.destroy();
}

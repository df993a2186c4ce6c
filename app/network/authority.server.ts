import { X509Certificate } from "node:crypto";
import { isIP } from "node:net";
import { readPrivate, writePrivate } from "@db/people/privateFile.server";
import { generate } from "selfsigned";

/** A certificate with its key, both as PEM. */
export interface KeyedCertificate {
  readonly key: string;
  readonly cert: string;
}

const dayMilliseconds = 86_400_000;
/** How long the authority lasts, and a certificate it signs: phones refuse longer ones. */
const authorityDays = 3650;
const certificateDays = 397;
/** A certificate is made again this long before it ends. */
const renewDays = 30;

function kept(name: string): KeyedCertificate | null {
  const [key, cert] = [readPrivate(`${name}.key`), readPrivate(`${name}.crt`)];
  return key && cert ? { key, cert } : null;
}

function keep(name: string, made: KeyedCertificate): KeyedCertificate {
  writePrivate(`${name}.key`, made.key);
  writePrivate(`${name}.crt`, made.cert);
  return made;
}

const subject = (name: string) => [
  { name: "commonName", value: name },
  { name: "organizationName", value: "Airway" },
];

const ending = (days: number, now: Date): Date => new Date(now.getTime() + days * dayMilliseconds);

/** The shop's own authority, which signs the server's certificates; made on first use. */
export async function shopAuthority(now = new Date()): Promise<KeyedCertificate> {
  const known = kept("authority");
  if (known) return known;
  const made = await generate(subject("Airway shop authority"), {
    keyType: "ec",
    algorithm: "sha256",
    // A phone whose clock is behind must accept it too.
    notBeforeDate: ending(-2, now),
    notAfterDate: ending(authorityDays, now),
    extensions: [
      { name: "basicConstraints", cA: true, pathLenConstraint: 0, critical: true },
      { name: "keyUsage", keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  return keep("authority", { key: made.private, cert: made.cert });
}

/** SHA-256 fingerprint of a certificate, in pairs of hexadecimal digits, as phones show it. */
export const fingerprintOf = (cert: string): string => new X509Certificate(cert).fingerprint256;

/** Whether a certificate is signed by an authority, holds for all of some names, and does not end soon. */
function holds(cert: string, authority: string, names: readonly string[], now: Date): boolean {
  const own = new X509Certificate(cert);
  return (
    own.verify(new X509Certificate(authority).publicKey) &&
    new Date(own.validTo) > ending(renewDays, now) &&
    names.every((name) => (isIP(name) ? own.checkIP(name) : own.checkHost(name)) !== undefined)
  );
}

/**
 * The server's certificate for some names and addresses, signed by the shop's authority. A new one is made when they
 * change or it ends soon; phones go on trusting it, because the authority stays the same.
 */
export async function serverCertificate(
  names: readonly string[],
  now = new Date(),
): Promise<KeyedCertificate> {
  const authority = await shopAuthority(now);
  const known = kept("server");
  if (known && holds(known.cert, authority.cert, names, now)) return known;
  const made = await generate(subject("Airway"), {
    keyType: "ec",
    algorithm: "sha256",
    notBeforeDate: ending(-2, now),
    notAfterDate: ending(certificateDays - 2, now),
    ca: authority,
    extensions: [
      { name: "basicConstraints", cA: false, critical: true },
      { name: "keyUsage", digitalSignature: true, keyEncipherment: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      {
        name: "subjectAltName",
        altNames: names.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name })),
      },
    ],
  });
  return keep("server", { key: made.private, cert: made.cert });
}

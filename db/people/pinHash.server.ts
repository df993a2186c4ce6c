import { randomBytes, type ScryptOptions, scrypt, timingSafeEqual } from "node:crypto";

/** Parameters of scrypt (RFC 7914). Each guess takes 128 × N × r bytes of memory, which is 32 MB. */
const cost: ScryptOptions = { N: 2 ** 15, r: 8, p: 1, maxmem: 2 ** 26 };
const bytes = 32;

const derive = (pin: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(pin.normalize("NFKC"), salt, bytes, cost, (error, key) => (error ? reject(error) : resolve(key))),
  );

/** The hash of a PIN with a salt of its own: both in base64url, with a dot between. */
export async function hashPin(pin: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString("base64url")}.${(await derive(pin, salt)).toString("base64url")}`;
}

/** Whether a PIN is the one that was hashed. */
export async function isPin(pin: string, hashed: string): Promise<boolean> {
  const [salt = "", key = ""] = hashed.split(".");
  const wanted = Buffer.from(key, "base64url");
  const given = await derive(pin, Buffer.from(salt, "base64url"));
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}

import { createHash, timingSafeEqual } from "node:crypto";
import type { NextFunction, Request, Response } from "express";
import { LRUCache } from "lru-cache";

/** Milliseconds during which nobody can sign in after a wrong passcode: the first wait, and the longest. */
const firstWaitMilliseconds = 500;
const longestWaitMilliseconds = 30_000;

const hash = (text: string): Buffer => createHash("sha256").update(text).digest();

/** The passcode of a Basic sign-in with any name; null if the request has none. */
function passcodeOf(header: string | undefined): string | null {
  const match = /^Basic ([A-Za-z0-9+/=]+)$/i.exec(header ?? "");
  if (!match) return null;
  const pair = Buffer.from(match[1] ?? "", "base64").toString("utf8");
  return pair.slice(pair.indexOf(":") + 1);
}

/** Addresses that have signed in, so that a stranger's guesses do not lock them out. */
const addressesKept = 1000;

/**
 * Lets requests through that carry the shop's passcode, by the browser's own sign-in. After a wrong one, no passcode
 * is checked for a while, so that parallel guesses gain nothing; each further one doubles the wait. Addresses that
 * have signed in before do not wait.
 * @param now milliseconds on a clock that only moves forward
 */
export function askPasscode(passcode: string, now = () => performance.now()) {
  const wanted = hash(passcode);
  const signedIn = new LRUCache<string, true>({ max: addressesKept });
  let wrong = 0;
  let shutUntil = 0;
  return (request: Request, response: Response, next: NextFunction): void => {
    const refuse = (status: 401 | 429, words: string): void => {
      response
        .status(status)
        .set("WWW-Authenticate", 'Basic realm="Airway", charset="UTF-8"')
        .set("Retry-After", String(Math.max(0, Math.ceil((shutUntil - now()) / 1000))))
        .type("text")
        .send(`${words}\n`);
    };
    const given = passcodeOf(request.headers.authorization);
    const address = request.socket.remoteAddress ?? "";
    if (given === null) refuse(401, "Sign in with the shop's passcode; the name may be anything.");
    else if (now() < shutUntil && !signedIn.has(address))
      refuse(429, "There were wrong passcodes. Wait a little and try again.");
    else if (timingSafeEqual(hash(given), wanted)) {
      signedIn.set(address, true);
      wrong = 0;
      next();
    } else {
      signedIn.delete(address);
      shutUntil = now() + Math.min(longestWaitMilliseconds, firstWaitMilliseconds * 2 ** wrong);
      wrong += 1;
      refuse(401, "This is not the shop's passcode.");
    }
  };
}

import { createHash, timingSafeEqual } from "node:crypto";
import { GuessLimit, noWait } from "@db/people/guessLimit";
import type { NextFunction, Request, Response } from "express";

/** After a wrong passcode nobody who has not signed in before can sign in for a while. */
const waits = {
  place: noWait,
  overall: { free: 0, firstMilliseconds: 500, longestMilliseconds: 30_000 },
};

const hash = (text: string): Buffer => createHash("sha256").update(text).digest();

/** The passcode of a Basic sign-in with any name; null if the request has none. */
function passcodeOf(header: string | undefined): string | null {
  const match = /^Basic ([A-Za-z0-9+/=]+)$/i.exec(header ?? "");
  if (!match) return null;
  const pair = Buffer.from(match[1] ?? "", "base64").toString("utf8");
  return pair.slice(pair.indexOf(":") + 1);
}

/**
 * Lets requests through that carry the shop's passcode, by the browser's own sign-in. After a wrong one, no passcode
 * is checked for a while, so that parallel guesses gain nothing; each further one doubles the wait. Addresses that
 * have signed in before do not wait.
 * @param now milliseconds on a clock that only moves forward
 */
export function askPasscode(passcode: string, now = () => performance.now()) {
  const wanted = hash(passcode);
  const limit = new GuessLimit(waits, now);
  return (request: Request, response: Response, next: NextFunction): void => {
    const refuse = (status: 401 | 429, words: string, waitMilliseconds = 0): void => {
      response
        .status(status)
        .set("WWW-Authenticate", 'Basic realm="Airway", charset="UTF-8"')
        .set("Retry-After", String(Math.ceil(waitMilliseconds / 1000)))
        .type("text")
        .send(`${words}\n`);
    };
    const given = passcodeOf(request.headers.authorization);
    const address = request.socket.remoteAddress ?? "";
    if (given === null) {
      refuse(401, "Sign in with the shop's passcode; the name may be anything.");
      return;
    }
    const guess = limit.begin(address);
    if ("waitMilliseconds" in guess)
      refuse(429, "There were wrong passcodes. Wait a little and try again.", guess.waitMilliseconds);
    else if (timingSafeEqual(hash(given), wanted)) {
      guess.right();
      next();
    } else {
      limit.forget(address);
      refuse(401, "This is not the shop's passcode.");
    }
  };
}

import { createHash, timingSafeEqual } from "node:crypto";
import type { NextFunction, Request, Response } from "express";

/** How long an answer to a wrong passcode is held back, and the longest it may get. */
const firstDelayMilliseconds = 500;
const longestDelayMilliseconds = 30_000;

const hash = (text: string): Buffer => createHash("sha256").update(text).digest();

/** The passcode of a Basic sign-in, whatever the name beside it; null where the request brings none. */
function passcodeOf(header: string | undefined): string | null {
  const match = /^Basic ([A-Za-z0-9+/=]+)$/i.exec(header ?? "");
  if (!match) return null;
  const pair = Buffer.from(match[1] ?? "", "base64").toString("utf8");
  return pair.slice(pair.indexOf(":") + 1);
}

/**
 * Lets requests through that bring the shop's passcode, by the browser's own sign-in. Every wrong one makes the next wait
 * longer, whoever sends it, so that guessing takes years.
 */
export function askPasscode(passcode: string) {
  const wanted = hash(passcode);
  let wrong = 0;
  return (request: Request, response: Response, next: NextFunction): void => {
    const given = passcodeOf(request.headers.authorization);
    if (given !== null && timingSafeEqual(hash(given), wanted)) {
      wrong = 0;
      next();
      return;
    }
    const refuse = (): void => {
      response
        .status(401)
        .set("WWW-Authenticate", 'Basic realm="Airway", charset="UTF-8"')
        .type("text")
        .send("Sign in with the shop's passcode; the name may be anything.\n");
    };
    if (given === null) {
      refuse();
      return;
    }
    wrong += 1;
    setTimeout(refuse, Math.min(longestDelayMilliseconds, firstDelayMilliseconds * 2 ** (wrong - 1))).unref();
  };
}

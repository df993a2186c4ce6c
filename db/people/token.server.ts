import { createHash, randomBytes } from "node:crypto";

/** 256 random bits, by which a browser is known again. */
export const randomToken = (): string => randomBytes(32).toString("base64url");

/** SHA-256 of a token, in hexadecimal, which is all that is stored of it: 256 random bits need no slower hash. */
export const tokenHash = (token: string): string => createHash("sha256").update(token).digest("hex");

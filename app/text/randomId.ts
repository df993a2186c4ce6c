import { v4 } from "uuid";

/**
 * A random version 4 UUID (RFC 9562, 5.4), on the server and in the browser. Browsers have no `crypto.randomUUID` on a page that
 * came over plain http, such as on a phone in the shop's network; this needs `getRandomValues` alone.
 */
export const randomId = (): string => v4();

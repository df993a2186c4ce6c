import { v4 } from "uuid";

/**
 * A random version 4 UUID (RFC 9562, 5.4), on the server and in the browser. On a page served over plain http, such as
 * on a phone in the shop's network, browsers have no `crypto.randomUUID`; this only needs `getRandomValues`.
 */
export const randomId = (): string => v4();

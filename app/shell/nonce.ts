import { createContext } from "react";

/** The nonce of the page being rendered on the server; empty in the browser, which hides it anyway. */
export const NonceContext = createContext("");

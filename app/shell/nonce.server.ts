import { createContext } from "react-router";

/** The content-security nonce of the current response. */
export const nonceContext = createContext<string>("");

import { createContext } from "react-router";

/** The content-security nonce of the response being made. */
export const nonceContext = createContext<string>("");

import { useRouteLoaderData } from "react-router";
import type { Preferences } from "./theme";

/** Whether letter keys enter readings in this browser. */
export const useLetterKeys = (): boolean => useRouteLoaderData<Preferences>("root")?.keys ?? true;

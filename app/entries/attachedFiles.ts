import { createStore, del, get, set } from "idb-keyval";

let store: ReturnType<typeof createStore> | null = null;
/** Where this browser stores the files of waiting entries; opened on first use. */
const files = () => (store ??= createStore("airway", "waiting-files"));

/** Stores the file of an entry until it is sent. Rejects if the browser has no room or no such store. */
export const keepFile = (entry: string, file: File): Promise<void> => set(entry, file, files());

/** The file of an entry, or undefined if the browser no longer has it. */
export const keptFile = (entry: string): Promise<File | undefined> => get<File>(entry, files());

export const dropFile = (entry: string): Promise<void> => del(entry, files());

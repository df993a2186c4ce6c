import { createStore, del, get, set } from "idb-keyval";

let store: ReturnType<typeof createStore> | null = null;
/** Where this browser keeps the files of entries that wait; opened when first asked for. */
const files = () => (store ??= createStore("airway", "waiting-files"));

/** Keeps the file of an entry until it is sent; rejects where the browser has no room or no such store. */
export const keepFile = (entry: string, file: File): Promise<void> => set(entry, file, files());

/** The file of an entry, or undefined if the browser no longer has it. */
export const keptFile = (entry: string): Promise<File | undefined> => get<File>(entry, files());

export const dropFile = (entry: string): Promise<void> => del(entry, files());

import { first } from "./001-first";

/** Every migration, oldest first: adding one is a file and a line. */
export const migrations = [first];

import { first } from "./001-first";
import { heardAnswers } from "./002-heard-answers";

/** Every migration, oldest first: adding one is a file and a line. */
export const migrations = [first, heardAnswers];

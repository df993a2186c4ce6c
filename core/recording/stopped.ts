/** Thrown where long work was stopped from outside. */
export class Stopped extends Error {}

import type { AddPart } from "../netlist/netlistBuilder";

/** A splice is only a node; the joint's contact resistance belongs to each wire's end. */
export const addSplice: AddPart<"splice"> = () => {};

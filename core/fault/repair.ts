/**
 * What has to be repaired together: parts, plugs and wires by id, the cause first. A circuit has one object for each
 * list, so a repair can be a key.
 */
export interface Repair {
  readonly parts: readonly string[];
}

/** The repair for a cause outside the list: nothing to fit. */
export const notListed: Repair = { parts: [] };

/** The format's name for the vehicle itself, when its filter or a duct is to be repaired. */
export const theCar = "CAR";

/** A repair in the writing of formats and forms: `R1`, `M1+R1`, or `unknown` for a cause outside the list. */
export const repairText = ({ parts }: Repair): string => (parts.length > 0 ? parts.join("+") : "unknown");

/** Returns the same `Repair` object for equal lists of parts, and keeps all of them in the order of first use. */
export class RepairList {
  private readonly known = new Map<string, Repair>();
  readonly all: Repair[] = [notListed];

  of(parts: readonly string[]): Repair {
    const repair: Repair = { parts };
    const text = repairText(repair);
    const met = this.known.get(text);
    if (met) return met;
    this.known.set(text, repair);
    this.all.push(repair);
    return repair;
  }
}

/** Whether two lists hold the same parts in any order. */
export const sameParts = (one: readonly string[], other: readonly string[]): boolean =>
  repairText({ parts: [...one].sort() }) === repairText({ parts: [...other].sort() });

/**
 * What has to be put right together: parts, plugs and wires by id, the cause first. A circuit has one object for each,
 * so that a repair can be a key.
 */
export interface Repair {
  readonly parts: readonly string[];
}

/** The repair of whatever the circuit does not list: nothing that could be fitted. */
export const notListed: Repair = { parts: [] };

/** What the format calls the vehicle itself, where its filter or a duct is to be put right. */
export const theCar = "CAR";

/** A repair as formats and forms write it: `R1`, `M1+R1`, or `unknown` for what is not listed. */
export const repairText = ({ parts }: Repair): string => (parts.length > 0 ? parts.join("+") : "unknown");

/** The circuit's one object for each list of parts, and all of them in the order they were first asked for. */
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

/** Whether two lists hold the same parts, in whatever order. */
export const sameParts = (one: readonly string[], other: readonly string[]): boolean =>
  repairText({ parts: [...one].sort() }) === repairText({ parts: [...other].sort() });

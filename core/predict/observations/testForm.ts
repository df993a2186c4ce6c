import type { Setup } from "../../solve/netlist/setup";

/** What can be tapped on the drawing, as far as tests differ by it. */
export const targetKinds = ["point", "wire", "motor", "relay", "fuse", "other"] as const;
export type TargetKind = (typeof targetKinds)[number];

/** What a technician chooses to enter a test that was not suggested. */
export interface TestForm {
  /**
   * Two points, one thing of the kinds in `targets`, one of the customer's answers, or nothing; `keys` are the
   * reading's keys that what was chosen goes into.
   */
  readonly pick:
    | { readonly kind: "points"; readonly keys: readonly [first: string, second: string] }
    | { readonly kind: "thing"; readonly keys: readonly [string] }
    | { readonly kind: "answer"; readonly keys: readonly [string]; readonly answers: readonly string[] }
    | { readonly kind: "nothing"; readonly keys: readonly [] };
  /** What of the vehicle's set-up belongs to it: all, all but key and engine as the battery is off, or nothing. */
  readonly setup: "live" | "battery-off" | "none";
  /** Where it is offered, and as which of the tests offered there, from 1. */
  readonly targets: Readonly<Partial<Record<TargetKind, number>>>;
}

/** The part of a set-up that belongs to a test. */
function setupFor({ setup: wanted }: TestForm, setup: Setup): Setup {
  if (wanted === "live") return setup;
  const { setting, unplugged } = setup;
  if (wanted === "none") return {};
  return { setting, ...(unplugged ? { unplugged } : {}) };
}

/**
 * A test made of what was chosen; still to be parsed.
 * @param picked what was chosen, in the order of the form's keys
 */
export function pickedTest<T extends string>(
  observation: { readonly name: T; readonly form: TestForm },
  picked: readonly string[],
  setup: Setup,
): { readonly test: T } & Setup {
  const { name, form } = observation;
  return {
    test: name,
    ...setupFor(form, setup),
    ...Object.fromEntries(form.pick.keys.map((key, place) => [key, picked[place] ?? ""])),
  };
}

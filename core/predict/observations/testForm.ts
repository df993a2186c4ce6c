import type { Setup } from "../../solve/netlist/setup";

/** Kinds of things on the drawing that can be chosen for a test. */
export const targetKinds = ["point", "wire", "motor", "relay", "fuse", "other"] as const;
export type TargetKind = (typeof targetKinds)[number];

/** What a technician chooses to enter a test that was not suggested. */
export interface TestForm {
  /**
   * Two points, one thing of the kinds in `targets`, one of the customer's answers, or nothing; `keys` are the
   * reading's keys that the choice fills.
   */
  readonly pick:
    | { readonly kind: "points"; readonly keys: readonly [first: string, second: string] }
    | { readonly kind: "thing"; readonly keys: readonly [string] }
    | { readonly kind: "answer"; readonly keys: readonly [string]; readonly answers: readonly string[] }
    | { readonly kind: "nothing"; readonly keys: readonly [] };
  /** Which part of the set-up belongs to it: all, all but key and engine with the battery disconnected, or none. */
  readonly setup: "live" | "battery-off" | "none";
  /** Where it is listed, and its position among the tests there, from 1. */
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
 * A test made from the choices, not yet parsed.
 * @param picked the choices, in the order of the form's keys
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

/** Where a vehicle without a diagram is tested: what anybody can find on it. */
export const plugPlaces = [
  "motor-plug",
  "motor-plug-2",
  "pack-plug",
  "module-plug",
  "switch-plug",
  "panel-plug",
] as const;
export type PlugPlace = (typeof plugPlaces)[number];
/** Whether a place is a plug. */
export const isPlug = (place: string): place is PlugPlace => plugPlaces.some((own) => own === place);

export const partPlaces = [
  "motor",
  "motor-2",
  "pack",
  "module",
  "switch",
  "panel",
  "relay",
  "fuses",
  "grounds",
] as const;
export type PartPlace = (typeof partPlaces)[number];

export type Place = PlugPlace | PartPlace;

/** What a repair is done to: a place, a fuse, or the wiring on either side of the motor. */
export type RepairPlace =
  | PlugPlace
  | Exclude<PartPlace, "fuses" | "grounds">
  | "fuse"
  | "feed"
  | "ground"
  | "command"
  | "battery"
  | "duct";

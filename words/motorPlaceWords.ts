import type { MotorPlace, PlaceSign } from "@core/access/whereIsIt";

/** Where a motor may be, and what is removed to reach it. */
export const motorPlaceWords: Readonly<
  Record<MotorPlace, { readonly title: string; readonly reach: string }>
> = {
  "passenger-footwell": {
    title: "Under the dash on the passenger's side, behind or below the glove box",
    reach:
      "remove the glove box or lower panel; the motor drops down with its wheel, or turns out of a twist lock",
  },
  "under-bonnet": {
    title: "Under the bonnet at the bulkhead, behind the battery, its tray or the cowl",
    reach: "remove the battery and its tray, or the wipers and cowl; the motor comes out forwards",
  },
  "behind-centre": {
    title: "Behind the centre of the dash or on the driver's side",
    reach:
      "remove the carpet and side panel, sometimes the accelerator pedal; some manuals say the dash must come out",
  },
  elsewhere: {
    title: "Somewhere else: under a seat, in the rear quarter, on the roof",
    reach: "follow the wires",
  },
};

/** Signs of where the motor is. */
export const placeSignWords: Readonly<Record<PlaceSign, string>> = {
  "shake-passenger": "The passenger's side of the dash shakes at top speed",
  "shake-centre": "The middle of the dash or the driver's side shakes",
  "loud-bonnet": "It is louder with the bonnet up than with the door open",
  "air-in-footwell": "Air is drawn in near the glove box when the air is recirculated",
  "lead-from-pack": "The thick lead from the pack goes up behind the glove box",
  "lead-through-bulkhead": "The thick lead from the pack goes through the bulkhead",
  "second-unit": "There is a second heater, for the rear",
};

/** How to find it on a vehicle nobody here has seen, the quickest way first. */
export const findingTheMotor = [
  "Set the top speed and lay your hands flat on the dash. The motor is near where it shakes most.",
  "Set recirculated air and feel where it is drawn in. The motor is behind that.",
  "If you know where the pack or the control module is, follow its two thickest leads.",
  "Listen with the bonnet up and down, and with the door open and shut. The motor is on the louder side.",
] as const;

import type { Motor } from "../circuit/parts/index";
import { motorConstants } from "../motor/motorConstants";

/** A blower motor's plate, as printed by an invented maker. */
export const blowerPlate: Motor = {
  id: "M1",
  kind: "motor",
  ratedVolts: 13.5,
  ratedAmps: 18,
  stallAmps: 70,
  ratedRpm: 3200,
};

export const blowerConstants = motorConstants(blowerPlate);

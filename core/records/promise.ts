import { z } from "zod";

/**
 * When a vehicle is promised to its customer, on the shop's clock: `2026-12-24T16:00`. It stays the same hour of the
 * day when the shop's time zone changes, so it carries no offset.
 */
export const promiseSchema = z.iso.datetime({
  local: true,
  precision: -1,
  error: "must be a day and an hour such as 2026-12-24T16:00",
});

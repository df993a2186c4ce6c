import { z } from "zod";
import { nonNegative, partBase, positive, settingName } from "./partBase";

/** A control panel that puts a voltage on `cmd` for each setting. */
export const climatePanelSchema = z.strictObject({
  ...partBase,
  kind: z.literal("head"),
  commands: z.record(settingName, z.number().min(-60).max(60)),
  outOhms: nonNegative,
  feedVolts: positive.optional(),
  /** It uses a data bus; its command volts stand for the request. */
  bus: z.literal(true).optional(),
});
export type ClimatePanel = z.infer<typeof climatePanelSchema>;

/** Names of the terminals: permanent and switched feed, ground (DIN 72552), and the command. */
export const climatePanelTerminals = (): string[] => ["30", "15", "31", "cmd"];

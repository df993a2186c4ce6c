import { z } from "zod";
import { planSchema } from "../access/plan";
import { circuitSchema } from "../circuit/circuit";
import { partDescriptionSchema } from "../match/partDescription";
import { caseSchema } from "./case";
import { practiceFileSchema } from "./practiceFile";
import { recordFileSchema } from "./recordFile";
import { seenCaseSchema } from "./seenCase";
import { shelfBundleSchema } from "./shelfBundle";

/** The open formats as JSON Schema, by name; `docs/formats/` publishes the same. */
export function formatSchemas(): Record<string, unknown> {
  return {
    "airway-circuit": z.toJSONSchema(circuitSchema),
    "airway-case": z.toJSONSchema(caseSchema),
    "airway-case-without-circuit": z.toJSONSchema(seenCaseSchema),
    "airway-shelf": z.toJSONSchema(shelfBundleSchema),
    "airway-plan": z.toJSONSchema(planSchema),
    "airway-records": z.toJSONSchema(recordFileSchema),
    "airway-practice": z.toJSONSchema(practiceFileSchema),
    "airway-part": z.toJSONSchema(partDescriptionSchema),
  };
}

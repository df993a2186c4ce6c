import type { StepCaution } from "@core/access/stepCaution";

/** What each caution of a step says; the maker's procedure, local rules and licensed people stand above all of them. */
export const stepCautionWords: Readonly<Record<StepCaution, string>> = {
  airbag: "Yellow plugs are airbags: leave them, or follow the maker's depowering wait first.",
  wheel: "Key off and the wheel still before a hand goes in.",
  "hot-pack": "The pack burns: let it cool.",
  "bare-positive": "A spanner from the positive to the body is a short: negative off first, on last.",
  knife: "Cut away from the hand that holds; gloves on.",
  "battery-weight": "A battery is heavy and holds acid: both hands, upright.",
  "sharp-bracket": "Sharp edges behind the bracket.",
  refrigerant: "Refrigerant lines near by are not part of this job: they belong to certified people.",
};

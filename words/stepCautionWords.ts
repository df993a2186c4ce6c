import type { StepCaution } from "@core/access/stepCaution";

/** The text of each caution of a step; the maker's procedure, local rules and licensed people come first. */
export const stepCautionWords: Readonly<Record<StepCaution, string>> = {
  airbag: "Yellow plugs are airbags. Leave them alone, or first wait as long as the maker says.",
  wheel: "Key off and wheel still before you reach in.",
  "hot-pack": "The pack is hot. Let it cool.",
  "bare-positive":
    "A spanner between the positive and the body is a short circuit. Disconnect the negative first and reconnect it last.",
  knife: "Wear gloves and cut away from your other hand.",
  "battery-weight": "A battery is heavy and contains acid. Use both hands and keep it upright.",
  "sharp-bracket": "There are sharp edges behind the bracket.",
  refrigerant: "Do not touch the refrigerant lines nearby. They are for certified people.",
};

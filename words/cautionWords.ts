import type { Caution } from "@core/diagnose/tests/caution";

/** The text of each caution; the maker's procedure and local rules come first. */
export const cautionWords: Readonly<Record<Caution, string>> = {
  "runs-on":
    "Pull the fuse or the plug before you reach in, and see the wheel stand still: the key does not stop it.",
  wheel: "Reach in only with the key off and the wheel still.",
  airbag: "Yellow plugs are airbags. Leave them alone, or follow the maker's waiting time.",
  "hot-pack": "The pack is hot. Let it cool.",
  "fused-lead": "Use only fused leads and lamps, and connect the battery last.",
  "load-lamp": "The load lamp gets hot: keep it off trim and carpet.",
  swap: "Key off before you pull the relay.",
};

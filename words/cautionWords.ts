import type { Caution } from "@core/diagnose/tests/caution";

/** What each caution says; the maker's procedure and local rules stand above all of them. */
export const cautionWords: Readonly<Record<Caution, string>> = {
  wheel: "Hands in only with the key off and the wheel still.",
  airbag: "Yellow plugs are airbags: leave them; the maker's wait stands.",
  "hot-pack": "It burns: let it cool.",
  "fused-lead": "Leads and lamps only through a fuse.",
};

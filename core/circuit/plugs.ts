import type { Circuit } from "./circuit";

/** Plugs that go onto a part. */
export const plugsOf = ({ connectors }: Circuit, part: string): string[] =>
  connectors.flatMap(({ id, pins }) =>
    Object.values(pins).some((terminal) => terminal.startsWith(`${part}.`)) ? [id] : [],
  );

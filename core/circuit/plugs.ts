import type { Circuit } from "./circuit";

/** Plugs that go onto a part. */
export const plugsOf = ({ connectors }: Circuit, part: string): string[] =>
  connectors.flatMap(({ id, pins }) =>
    Object.values(pins).some((terminal) => terminal.startsWith(`${part}.`)) ? [id] : [],
  );

/** Pins of the plugs on a part that carry its current: all but a control's command. */
export const loadPinsOf = ({ connectors }: Circuit, part: string): string[] =>
  connectors.flatMap(({ id, pins }) =>
    Object.entries(pins).flatMap(([pin, terminal]) =>
      terminal.startsWith(`${part}.`) && !terminal.endsWith(".cmd") ? [`${id}:${pin}`] : [],
    ),
  );

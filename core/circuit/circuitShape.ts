import type { Circuit } from "./circuit";

/**
 * A text that is equal for circuits with the same parts joined in the same way. Names, colours, lengths, places and
 * values do not count. Each part's kind is refined by its neighbours' until nothing more can be told apart (colour
 * refinement, Weisfeiler and Leman 1968). In rare cases two different circuits share a shape; one circuit never has
 * two shapes.
 */
export function circuitShape({ parts, wires, settings }: Circuit): string {
  const ends = (reference: string): [part: string, terminal: string] => {
    const dot = reference.indexOf(".");
    return [reference.slice(0, dot), reference.slice(dot + 1)];
  };
  const beside = new Map<string, { own: string; other: string; theirs: string }[]>(
    parts.map(({ id }) => [id, []]),
  );
  for (const { from, to } of wires) {
    const [a, ta] = ends(from);
    const [b, tb] = ends(to);
    beside.get(a)?.push({ own: ta, other: b, theirs: tb });
    beside.get(b)?.push({ own: tb, other: a, theirs: ta });
  }
  let colours = new Map(parts.map(({ id, kind }) => [id, kind as string]));
  for (let round = 0; round < rounds; round++) {
    colours = new Map(
      parts.map(({ id }) => {
        const around = (beside.get(id) ?? []).map(
          ({ own, other, theirs }) => `${own}>${colours.get(other)}.${theirs}`,
        );
        return [id, digest(`${colours.get(id)}[${around.sort().join()}]`)];
      }),
    );
  }
  return digest(`${settings.length}:${[...colours.values()].sort().join()}`);
}

/** Number of refinement rounds: more than the distance between any two parts of a blower circuit. */
const rounds = 12;

/** A short text for a long one: two of its 32-bit FNV-1a hashes (Fowler, Noll and Vo), forwards and backwards. */
function digest(text: string): string {
  let one = 0x811c9dc5;
  let other = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) {
    one = Math.imul(one ^ text.charCodeAt(i), 0x01000193);
    other = Math.imul(other ^ text.charCodeAt(text.length - 1 - i), 0x01000193);
  }
  return (one >>> 0).toString(16).padStart(8, "0") + (other >>> 0).toString(16).padStart(8, "0");
}

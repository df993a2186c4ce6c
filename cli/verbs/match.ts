import { parseCircuit } from "@core/circuit/parseCircuit";
import { mostAmps } from "@core/match/newPart";
import { parsePart } from "@core/match/partDescription";
import { matchParts } from "@core/match/partMatch";
import { leadMap, plugOf } from "@core/match/spliceLeads";
import { type Parsed, quoted, refused } from "@core/problem/problem";
import { partMatchWords } from "@words/partMatchWords";
import { leadMapWords } from "@words/spliceWords";

/** The options of `match` from the command line, with their files read. */
export interface MatchInput {
  readonly circuit: unknown;
  readonly part: string;
  readonly old: unknown;
  readonly fresh: unknown;
}

/** The output of `match`: the compared parts and, if the new one has leads, the splice. */
export type MatchAnswer = ReturnType<typeof partMatchWords> & {
  readonly leads: ReturnType<typeof leadMapWords> | null;
};

/** The old part against the new one, in a circuit. */
export function matchFrom({ circuit: input, part, old, fresh }: MatchInput): Parsed<MatchAnswer> {
  const circuit = parseCircuit(input);
  if (!circuit.ok) return circuit;
  const [was, now] = [parsePart(old), parsePart(fresh)];
  if (!was.ok) return was;
  if (!now.ok) return now;
  if (!circuit.value.parts.some(({ id }) => id === part))
    return refused([
      { code: "no-such-thing", path: "--part", message: `the circuit has no part ${quoted(part)}` },
    ]);
  const plug = plugOf(circuit.value, part);
  return {
    ok: true,
    value: {
      ...partMatchWords(matchParts(circuit.value, part, was.value, now.value)),
      leads:
        now.value.leads && plug
          ? leadMapWords(leadMap(circuit.value, plug, now.value.leads, mostAmps(circuit.value)))
          : null,
    },
  };
}

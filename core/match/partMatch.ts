import type { Circuit } from "../circuit/circuit";
import { adaptable, harmless, type Judgement, type PartDifference, wrong } from "./difference";
import { layOn } from "./holePattern";
import { type PartInCircuit, partInCircuit } from "./newPart";
import type { PartDescription } from "./partDescription";
import { plainNumber, supersededBy } from "./supersession";
import { wheelDifferences } from "./wheel";

/** Old part against new, and against the circuit. */
export interface PartMatch {
  /** The worst that stands, overridden differences left out. */
  readonly verdict: Judgement | "same";
  readonly differences: readonly (PartDifference & { readonly overridden: boolean })[];
  /** Minutes of the adaptable ones' work. */
  readonly workMinutes: number;
  /** The new part's number follows from the old one's, or does not. */
  readonly number: "same" | "supersedes" | "unrelated";
  /** The circuit solved with the new part; null where its figures say nothing. */
  readonly inCircuit: PartInCircuit | null;
  /** Features that neither part tells, worth a look before the box is thrown away. */
  readonly untold: readonly string[];
}

/**
 * Compares two parts feature by feature. A feature only one of them tells is not judged. The judgements are the trade's (common
 * practice, no source); ohms, draw and airflow are worked out in the circuit itself.
 * @param part the circuit's id of the old part
 * @param overrides features a person judged harmless after all
 */
export function matchParts(
  circuit: Circuit,
  part: string,
  old: PartDescription,
  fresh: PartDescription,
  catalogue: readonly PartDescription[] = [],
  overrides: ReadonlySet<string> = new Set(),
): PartMatch {
  const inCircuit = partInCircuit(circuit, part, fresh);
  const found = [
    ...(old.kind === fresh.kind
      ? []
      : [wrong("kind", old.kind, fresh.kind, "it is another part altogether")]),
    ...climateDifference(old, fresh),
    ...plugDifferences(old, fresh),
    ...bodyDifferences(old, fresh),
    ...wheelDifferences(old, fresh),
    ...ohmsDifferences(circuit, part, old, fresh, inCircuit),
    ...drawDifferences(circuit, part, fresh, inCircuit),
  ];
  const differences = found.map((own) => ({ ...own, overridden: overrides.has(own.feature) }));
  const standing = differences.filter(({ overridden }) => !overridden);
  return {
    verdict: worst(standing.map(({ judgement }) => judgement)),
    differences,
    workMinutes: differences.reduce((sum, { work }) => sum + (work?.minutes ?? 0), 0),
    number: numberOf(old, fresh, catalogue),
    inCircuit,
    untold: untold(old, fresh),
  };
}

function worst(judgements: readonly Judgement[]): PartMatch["verdict"] {
  for (const own of ["wrong", "adaptable", "harmless"] as const) if (judgements.includes(own)) return own;
  return "same";
}

function numberOf(
  old: PartDescription,
  fresh: PartDescription,
  catalogue: readonly PartDescription[],
): PartMatch["number"] {
  const plain = plainNumber(fresh.number);
  if (plainNumber(old.number) === plain) return "same";
  const known = [...catalogue, old, fresh];
  const chain = supersededBy(known, old.number).chain.map(plainNumber);
  return chain.includes(plain) ? "supersedes" : "unrelated";
}

const features = [
  ["plug", "plug and its tab"],
  ["holes", "hole pattern"],
  ["screws", "screws"],
  ["notch", "notch or key"],
  ["ventTube", "vent tube"],
  ["drainNose", "drain nose"],
  ["gasket", "gasket"],
  ["climate", "manual or automatic climate"],
] as const;

const untold = (old: PartDescription, fresh: PartDescription): string[] =>
  features.flatMap(([key, title]) => (old[key] === undefined || fresh[key] === undefined ? [title] : []));

function climateDifference(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (!old.climate || !fresh.climate || old.climate === fresh.climate) return [];
  return [
    wrong(
      "climate",
      old.climate,
      fresh.climate,
      "made for the other climate: its plug may fit and its control does not",
    ),
  ];
}

function plugDifferences(
  { plug: old }: PartDescription,
  { plug: fresh, leads }: PartDescription,
): PartDifference[] {
  if (!old || !fresh) return [];
  const made: PartDifference[] = [];
  if (old.pins !== fresh.pins)
    made.push(
      leads
        ? adaptable(
            "pins",
            `${old.pins} pins`,
            `${fresh.pins} pins, with leads`,
            "it comes with a plug of its own, to be spliced in",
            "Splice the new plug in, lead by lead",
            20,
          )
        : wrong("pins", `${old.pins} pins`, `${fresh.pins} pins`, "the car's plug does not go on"),
    );
  if (old.tab && fresh.tab && old.tab !== fresh.tab && old.pins === fresh.pins)
    made.push(
      leads
        ? harmless("tab", old.tab, fresh.tab, "the new plug comes with it")
        : wrong(
            "tab",
            `tab ${old.tab}`,
            `tab ${fresh.tab}`,
            "the plug goes on turned over, if at all: pins meet others",
          ),
    );
  return made;
}

function bodyDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  return [
    ...holeDifference(old, fresh),
    ...tubeDifference(old, fresh),
    ...noseDifference(old, fresh),
    ...notchDifference(old, fresh),
    ...(old.gasket === true && fresh.gasket === false
      ? [
          adaptable(
            "gasket",
            "with a gasket",
            "without",
            "the old one or a strip of foam seals it",
            "Carry the gasket over",
            2,
          ),
        ]
      : []),
    ...(old.gasket === false && fresh.gasket === true
      ? [harmless("gasket", "without", "with a gasket", "it seals the better")]
      : []),
    ...(old.screws !== undefined && fresh.screws !== undefined && old.screws !== fresh.screws
      ? [screwDifference(old.screws, fresh.screws)]
      : []),
  ];
}

const screwDifference = (old: number, fresh: number): PartDifference =>
  fresh > old
    ? adaptable(
        "screws",
        `${old} screws`,
        `${fresh} screws`,
        "the housing has no hole for all",
        "Leave one out, or drill",
        4,
      )
    : harmless("screws", `${old} screws`, `${fresh} screws`, "one place stays empty; it holds without");

function holeDifference(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (!old.holes || !fresh.holes) return [];
  const words = (part: PartDescription): string => `${part.holes?.length ?? 0} holes`;
  const fit = layOn(old.holes, fresh.holes);
  if (!fit) return [wrong("holes", words(old), words(fresh), "the patterns do not lie on one another")];
  if (fit.mirrored)
    return [
      wrong(
        "holes",
        words(old),
        `${words(fresh)}, mirrored`,
        "it only fits turned over: made for the other side",
      ),
    ];
  const play = Math.min(old.holePlayMm ?? 1, fresh.holePlayMm ?? 1);
  const off = `${fit.worstMm.toFixed(1)} mm off`;
  if (fit.worstMm < 0.05) return [];
  if (fit.worstMm <= play) return [harmless("holes", words(old), off, `within the ${play} mm of play`)];
  if (fit.worstMm <= play + 2)
    return [
      adaptable(
        "holes",
        words(old),
        off,
        `${play} mm of play is too little`,
        "Draw the holes out with a round file",
        6,
      ),
    ];
  return [wrong("holes", words(old), off, "too far off to file")];
}

function tubeDifference(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (old.ventTube === undefined || fresh.ventTube === undefined || old.ventTube === fresh.ventTube)
    return [];
  return [
    old.ventTube
      ? wrong(
          "vent tube",
          "with a vent",
          "without",
          "the motor is not cooled, and the tube blows into the car",
        )
      : adaptable(
          "vent tube",
          "without",
          "with a vent",
          "an open vent whistles",
          "Close it off, or lead a tube",
          3,
        ),
  ];
}

function noseDifference(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (old.drainNose === undefined || fresh.drainNose === undefined || old.drainNose === fresh.drainNose)
    return [];
  return [
    old.drainNose
      ? wrong("drain nose", "with a drain", "without", "water stays in the housing and drowns the motor")
      : adaptable(
          "drain nose",
          "without",
          "with a nose",
          "it wants a hole that is not there",
          "Cut it off flush and seal it",
          5,
        ),
  ];
}

function notchDifference(
  { notch: old }: PartDescription,
  { notch: fresh }: PartDescription,
): PartDifference[] {
  if (!old || !fresh || old === fresh) return [];
  if (fresh === "none")
    return [harmless("notch", `corner ${old}`, "none", "nothing stops it; mind which way round it goes")];
  return [
    adaptable(
      "notch",
      old === "none" ? "none" : `corner ${old}`,
      `corner ${fresh}`,
      "it stands in the way",
      "File the corner off",
      4,
    ),
  ];
}

/** Airflow of a speed may differ by so much and still be felt as right. */
const feltAsRight = 0.25;
const unnoticed = 0.08;

function ohmsDifferences(
  circuit: Circuit,
  part: string,
  { elements: old }: PartDescription,
  { elements: fresh }: PartDescription,
  inCircuit: PartInCircuit | null,
): PartDifference[] {
  if (!fresh) return [];
  const words = (of: NonNullable<PartDescription["elements"]>): string =>
    of.map(({ ohms }) => `${ohms} Ω`).join(", ");
  const own = circuit.parts.find(({ id }) => id === part);
  const was = old ? words(old) : own?.kind === "resistor" ? "the circuit's" : "";
  if (!inCircuit)
    return [wrong("ohms", was, words(fresh), "other coils between other terminals than this circuit's")];
  const worstSpeed = [...inCircuit.speeds].sort(
    (a, b) => Math.abs(b.airflow - 1) - Math.abs(a.airflow - 1),
  )[0];
  if (!worstSpeed) return [];
  const change = worstSpeed.airflow - 1;
  const told = `speed ${worstSpeed.setting} blows ${Math.abs(change * 100).toFixed(0)} % ${change > 0 ? "more" : "less"}, worked out in this circuit`;
  if (Math.abs(change) > feltAsRight) return [wrong("ohms", was, words(fresh), told)];
  const hotter = inCircuit.coils.find(({ watts, wasWatts }) => watts > 1.3 * wasWatts && watts > 15);
  if (hotter)
    return [
      wrong(
        "ohms",
        was,
        words(fresh),
        `${hotter.id} makes ${hotter.watts.toFixed(0)} W, it made ${hotter.wasWatts.toFixed(0)} W`,
      ),
    ];
  return Math.abs(change) < unnoticed / 8 ? [] : [harmless("ohms", was, words(fresh), told)];
}

/** A fuse carries so much of its rating for long (common practice, no source). */
const fuseShare = 0.8;

function drawDifferences(
  circuit: Circuit,
  part: string,
  fresh: PartDescription,
  inCircuit: PartInCircuit | null,
): PartDifference[] {
  const own = circuit.parts.find(({ id }) => id === part);
  if (own?.kind !== "motor" || !fresh.plate || !inCircuit) return [];
  const made: PartDifference[] = [];
  const plate = (volts: number, amps: number): string => `${amps} A at ${volts} V`;
  const [was, now] = [
    plate(own.ratedVolts, own.ratedAmps),
    plate(fresh.plate.ratedVolts, fresh.plate.ratedAmps),
  ];
  const blown = inCircuit.fuses.find(({ amps, ratedAmps }) => amps > ratedAmps);
  const warm = inCircuit.fuses.find(({ amps, ratedAmps }) => amps > fuseShare * ratedAmps);
  if (blown)
    made.push(
      wrong(
        "draw",
        was,
        now,
        `${blown.amps.toFixed(1)} A through ${blown.id}, a ${blown.ratedAmps} A fuse: it blows`,
      ),
    );
  else if (warm)
    made.push(
      wrong(
        "draw",
        was,
        now,
        `${warm.amps.toFixed(1)} A through ${warm.id}, a ${warm.ratedAmps} A fuse: over eight tenths, it will not last`,
      ),
    );
  const top = inCircuit.speeds.at(-1);
  if (top && Math.abs(top.airflow - 1) > feltAsRight)
    made.push(
      wrong(
        "airflow",
        "",
        `${(top.airflow * 100).toFixed(0)} %`,
        `speed ${top.setting} turns so much of what the old motor did`,
      ),
    );
  else if (top && was !== now && !blown && !warm)
    made.push(
      harmless(
        "draw",
        was,
        now,
        `${top.amps.toFixed(1)} A on ${top.setting} where ${top.wasAmps.toFixed(1)} A were; every fuse stands it`,
      ),
    );
  return made;
}

import type { Circuit } from "../circuit/circuit";
import { adaptable, harmless, type Judgement, type PartDifference, wrong } from "./difference";
import { layOn } from "./holePattern";
import { type PartInCircuit, partInCircuit } from "./newPart";
import type { PartDescription } from "./partDescription";
import { plugDifferences } from "./plugDifference";
import { plainNumber, supersededBy } from "./supersession";
import { isWheelFitUnknown, wheelDifferences } from "./wheel";

/** The old part against the new one, and against the circuit. */
export interface PartMatch {
  /** The worst remaining judgement, without overridden differences. */
  readonly verdict: Judgement | "same";
  readonly differences: readonly (PartDifference & { readonly overridden: boolean })[];
  /** Minutes of work for the adaptable ones that nobody overrode. */
  readonly workMinutes: number;
  /** Whether the new part's number supersedes the old one's. */
  readonly number: "same" | "supersedes" | "unrelated";
  /** The circuit solved with the new part; null if its figures say nothing about it. */
  readonly inCircuit: PartInCircuit | null;
  /** Features that neither part states, worth measuring before the box is thrown away. */
  readonly untold: readonly PartFeature[];
}

/**
 * Compares two parts feature by feature. A feature stated for only one of them is not judged. The judgements are the
 * trade's (common practice, no source); ohms, current and airflow are computed in the circuit itself.
 * @param part the old part's id in the circuit
 * @param overrides features a person judged harmless
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
      : [wrong("kind", { code: "other-kind", old: old.kind, fresh: fresh.kind })]),
    ...climateDifference(old, fresh),
    ...plugDifferences(old, fresh),
    ...bodyDifferences(old, fresh),
    ...wheelDifferences(old, fresh),
    ...ohmsDifferences(old, fresh, inCircuit),
    ...drawDifferences(circuit, part, fresh, inCircuit),
  ];
  const differences = found.map((own) => ({ ...own, overridden: overrides.has(own.feature) }));
  const standing = differences.filter(({ overridden }) => !overridden);
  return {
    verdict: worst(standing.map(({ judgement }) => judgement)),
    differences,
    workMinutes: standing.reduce((sum, own) => sum + (own.adaptation?.minutes ?? 0), 0),
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

const features = ["plug", "holes", "screws", "notch", "ventTube", "drainNose", "gasket", "climate"] as const;
/** A feature worth comparing by eye, or the fit of a wheel that is carried over. */
export type PartFeature = (typeof features)[number] | "wheelFit";

function untold(old: PartDescription, fresh: PartDescription): PartFeature[] {
  const ringed = old.mount === "moulded" && fresh.mount === "ring";
  const known = (feature: (typeof features)[number]): boolean =>
    (ringed && (feature === "holes" || feature === "screws")) ||
    (old[feature] !== undefined && fresh[feature] !== undefined);
  return [
    ...features.filter((feature) => !known(feature)),
    ...(isWheelFitUnknown(old, fresh) ? (["wheelFit"] as const) : []),
  ];
}

function climateDifference(
  { climate: old }: PartDescription,
  { climate: fresh }: PartDescription,
): PartDifference[] {
  return old && fresh && old !== fresh ? [wrong("climate", { code: "other-climate", old, fresh })] : [];
}

function bodyDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  const kit = mountDifference(old, fresh);
  // A ring brings its own screws, so the holes of the moulding say nothing.
  const fixing =
    old.mount === "moulded" ? [] : [...holeDifference(old, fresh), ...screwDifference(old, fresh)];
  return [
    ...kit,
    ...fixing,
    ...tubeDifference(old, fresh),
    ...noseDifference(old, fresh),
    ...locatingDifferences(old, fresh),
    ...gasketDifference(old, fresh),
  ];
}

function mountDifference(
  { mount: old }: PartDescription,
  { mount: fresh }: PartDescription,
): PartDifference[] {
  if (!old || !fresh || old === fresh) return [];
  return [
    old === "moulded" && fresh === "ring"
      ? adaptable("mount", { code: "ring-kit", old, fresh }, "fit-ring")
      : wrong("mount", { code: "other-mount", old, fresh }),
  ];
}

function gasketDifference(
  { gasket: old }: PartDescription,
  { gasket: fresh }: PartDescription,
): PartDifference[] {
  if (old === undefined || fresh === undefined || old === fresh) return [];
  return [
    old
      ? adaptable("gasket", { code: "gasket-missing" }, "carry-gasket")
      : harmless("gasket", { code: "gasket-added" }),
  ];
}

function screwDifference(
  { screws: old }: PartDescription,
  { screws: fresh }: PartDescription,
): PartDifference[] {
  if (old === undefined || fresh === undefined || old === fresh) return [];
  return [
    fresh > old
      ? adaptable("screws", { code: "more-screws", old, fresh }, "leave-screw-out", fresh - old)
      : harmless("screws", { code: "fewer-screws", old, fresh }),
  ];
}

/** Millimetres a hole may be filed out beyond its play (common practice, no source). */
const filedMm = 2;

function holeDifference(old: PartDescription, fresh: PartDescription): PartDifference[] {
  if (!old.holes || !fresh.holes) return [];
  const counts = { oldHoles: old.holes.length, freshHoles: fresh.holes.length };
  const fit = layOn(old.holes, fresh.holes);
  if (!fit) return [wrong("holes", { code: "holes-differ", ...counts })];
  if (fit.mirrored) return [wrong("holes", { code: "holes-mirrored", ...counts })];
  const playMm = Math.min(old.holePlayMm ?? 1, fresh.holePlayMm ?? 1);
  const off = { oldHoles: counts.oldHoles, offMm: fit.worstMm, playMm };
  if (fit.worstMm < 0.05) return [];
  if (fit.worstMm <= playMm) return [harmless("holes", { code: "holes-within-play", ...off })];
  if (fit.worstMm <= playMm + filedMm)
    return [adaptable("holes", { code: "holes-to-file", ...off }, "file-holes")];
  return [wrong("holes", { code: "holes-too-far", ...off })];
}

function tubeDifference(
  { ventTube: old }: PartDescription,
  { ventTube: fresh }: PartDescription,
): PartDifference[] {
  if (old === undefined || fresh === undefined || old === fresh) return [];
  return [
    old
      ? adaptable("vent tube", { code: "vent-missing" }, "carry-tube")
      : adaptable("vent tube", { code: "vent-added" }, "close-vent"),
  ];
}

function noseDifference(
  { drainNose: old }: PartDescription,
  { drainNose: fresh }: PartDescription,
): PartDifference[] {
  if (old === undefined || fresh === undefined || old === fresh) return [];
  return [
    old
      ? wrong("drain nose", { code: "drain-missing" })
      : adaptable("drain nose", { code: "drain-added" }, "cut-nose"),
  ];
}

/**
 * A cut-out gives room to something of the housing: where the new part has none, its corner is filed off. A key
 * projects: where the housing has no slot for it, it is cut off.
 */
function locatingDifferences(old: PartDescription, fresh: PartDescription): PartDifference[] {
  const found: PartDifference[] = [];
  if (old.notch && fresh.notch && old.notch !== fresh.notch) {
    const cutOuts = { old: old.notch, fresh: fresh.notch };
    found.push(
      old.notch === "none"
        ? harmless("notch", { code: "cut-out-added", ...cutOuts })
        : adaptable("notch", { code: "cut-out-missing", ...cutOuts }, "file-corner"),
    );
  }
  if (old.key && fresh.key && old.key !== fresh.key) {
    const keys = { old: old.key, fresh: fresh.key };
    found.push(
      fresh.key === "none"
        ? harmless("key", { code: "key-gone", ...keys })
        : adaptable("key", { code: "key-in-the-way", ...keys }, "cut-key"),
    );
  }
  return found;
}

/** Largest change of a speed's airflow, as a share, that still feels normal. */
const feltAsRight = 0.25;
/** A change of airflow below this share is not noticed. */
const unnoticed = 0.01;

function ohmsDifferences(
  { elements: old }: PartDescription,
  { elements: fresh }: PartDescription,
  inCircuit: PartInCircuit | null,
): PartDifference[] {
  if (!fresh) return [];
  const ohms = { oldOhms: old?.map((own) => own.ohms) ?? null, freshOhms: fresh.map((own) => own.ohms) };
  if (!inCircuit) return [wrong("ohms", { code: "other-terminals", ...ohms })];
  const worstSpeed = [...inCircuit.speeds].sort(
    (a, b) => Math.abs(b.airflow - 1) - Math.abs(a.airflow - 1),
  )[0];
  if (!worstSpeed) return [];
  const airflowChange = worstSpeed.airflow - 1;
  const changes = { code: "speed-changes", setting: worstSpeed.setting, airflowChange, ...ohms } as const;
  if (Math.abs(airflowChange) > feltAsRight) return [wrong("ohms", changes)];
  const hotter = inCircuit.coils.find(({ watts, wasWatts }) => watts > 1.3 * wasWatts && watts > 15);
  if (hotter)
    return [
      wrong("ohms", {
        code: "coil-hotter",
        coil: hotter.id,
        watts: hotter.watts,
        wasWatts: hotter.wasWatts,
        ...ohms,
      }),
    ];
  return Math.abs(airflowChange) < unnoticed ? [] : [harmless("ohms", changes)];
}

/** Share of its rating a fuse can carry continuously (common practice, no source). */
const fuseShare = 0.8;

function drawDifferences(
  circuit: Circuit,
  part: string,
  { plate: fresh }: PartDescription,
  inCircuit: PartInCircuit | null,
): PartDifference[] {
  const own = circuit.parts.find(({ id }) => id === part);
  if (own?.kind !== "motor" || !fresh || !inCircuit) return [];
  const plates = { old: { ratedVolts: own.ratedVolts, ratedAmps: own.ratedAmps }, fresh };
  const blown = inCircuit.fuses.find(({ amps, ratedAmps }) => amps > ratedAmps);
  const loaded = blown ?? inCircuit.fuses.find(({ amps, ratedAmps }) => amps > fuseShare * ratedAmps);
  const made: PartDifference[] = loaded
    ? [
        wrong("draw", {
          code: blown ? "fuse-blows" : "fuse-overloaded",
          ...plates,
          fuse: loaded.id,
          amps: loaded.amps,
          ratedAmps: loaded.ratedAmps,
        }),
      ]
    : [];
  const top = inCircuit.speeds.at(-1);
  if (!top) return made;
  if (Math.abs(top.airflow - 1) > feltAsRight)
    return [...made, wrong("airflow", { code: "motor-speed", setting: top.setting, airflow: top.airflow })];
  const isSame = own.ratedVolts === fresh.ratedVolts && own.ratedAmps === fresh.ratedAmps;
  return isSame || loaded
    ? made
    : [
        harmless("draw", {
          code: "draw-fine",
          ...plates,
          setting: top.setting,
          amps: top.amps,
          wasAmps: top.wasAmps,
        }),
      ];
}

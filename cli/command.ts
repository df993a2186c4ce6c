import type { Readable, Writable } from "node:stream";
import { type ParseArgsConfig, parseArgs } from "node:util";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { diagnoseCase } from "@core/formats/diagnoseCase";
import { diagnoseSeenCase, isSeenCase } from "@core/formats/seenCase";
import type { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CandidateCache } from "@core/wiring/compiledCandidate";
import { diagnosisReport } from "@words/diagnosisReport";
import { wiringReport } from "@words/wiringWords";
import { BadInput, parseJson, readInput, recordingFrom } from "./input";
import { shippedCircuits } from "./library";
import {
  accept,
  diagnosisLines,
  matchLines,
  pointLines,
  print,
  rippleLines,
  routeLines,
  wiringLines,
} from "./output";
import { checkFile } from "./verbs/check";
import { listFaults } from "./verbs/faults";
import { rippleOf } from "./verbs/humps";
import { attachInstrument } from "./verbs/instrument";
import { answerLines } from "./verbs/lines";
import { type MatchAnswer, matchFrom } from "./verbs/match";
import { newPin } from "./verbs/pin";
import { priceFrom } from "./verbs/price";
import { routeFrom } from "./verbs/route";
import { type SolveOptions, solveCircuit, spiceCircuit } from "./verbs/solve";

const usage =
  "usage: airway check|solve|faults|diagnose|spice|ripple|route|match|price|instrument FILE [options], airway pin NAME, airway lines (FILE - is standard input)";

const flags = {
  text: { type: "boolean" },
  key: { type: "string" },
  engine: { type: "boolean" },
  setting: { type: "string" },
  selector: { type: "string", multiple: true },
  fault: { type: "string" },
  unplugged: { type: "string", multiple: true },
  bridged: { type: "string", multiple: true },
  "lamp-for": { type: "string" },
  plan: { type: "boolean" },
  "volts-per-amp": { type: "string" },
  bars: { type: "string" },
  poles: { type: "string" },
  "amps-per-volt": { type: "string" },
  "shunt-ohms": { type: "string" },
  rpm: { type: "string" },
  "about-rpm": { type: "string" },
  "chopping-hz": { type: "string" },
  "rate-hz": { type: "string" },
  column: { type: "string" },
  to: { type: "string" },
  prefer: { type: "string" },
  done: { type: "string" },
  circuit: { type: "string" },
  part: { type: "string" },
  against: { type: "string" },
  port: { type: "string" },
} as const satisfies ParseArgsConfig["options"];

const pointFlags = ["key", "engine", "setting", "selector", "fault", "unplugged", "bridged", "lamp-for"];
/** Flags of each verb in addition to `--text`. */
const flagsOf: Readonly<Record<string, readonly string[]>> = {
  check: [],
  solve: pointFlags,
  spice: pointFlags,
  faults: [],
  diagnose: ["plan"],
  humps: [
    "volts-per-amp",
    "amps-per-volt",
    "shunt-ohms",
    "bars",
    "poles",
    "rpm",
    "about-rpm",
    "chopping-hz",
    "rate-hz",
    "column",
  ],
  route: ["to", "prefer", "done"],
  match: ["circuit", "part", "against"],
  price: [],
  instrument: ["fault", "key", "engine", "setting", "port"],
  lines: [],
  pin: [],
};

/** The checkout, streams and compiled circuits of a command. */
export interface Terminal {
  /** The checkout whose circuits are the library. */
  readonly root: string;
  readonly input: Readable;
  readonly output: Writable;
  readonly errors: Writable;
  readonly circuits: CircuitCache;
  readonly candidates: CandidateCache;
}

function readArguments(argv: string[]) {
  try {
    return parseArgs({ args: argv, options: flags, allowPositionals: true });
  } catch (error) {
    throw new BadInput(`${(error as Error).message.split("\n")[0]}; ${usage}`);
  }
}

/** Compares the part in a file with the old one in a circuit. */
async function answerMatch(
  fresh: unknown,
  { circuit, part, against }: ReturnType<typeof readArguments>["values"],
  { input }: Terminal,
): Promise<MatchAnswer> {
  if (!circuit || !part || !against)
    throw new BadInput("match: expected --circuit CIRCUIT --part R1 --against OLD");
  const read = async (own: string): Promise<unknown> => accept(parseJson(await readInput(own, input)));
  return accept(matchFrom({ circuit: await read(circuit), part, old: await read(against), fresh }));
}

async function run(argv: string[], terminal: Terminal): Promise<void> {
  const { output } = terminal;
  const { values, positionals } = readArguments(argv);
  const [named, file, extra] = positionals;
  const verb = named === "ripple" ? "humps" : named;
  const library = shippedCircuits(terminal.root);
  const stray = Object.keys(values).find((flag) => flag !== "text" && !flagsOf[verb ?? ""]?.includes(flag));
  if (stray) throw new BadInput(`--${stray} is not an option of ${named ?? "airway"}; ${usage}`);
  if (verb === "lines" && file === undefined)
    return answerLines(terminal.input, output, library, terminal.circuits, terminal.candidates);
  if (verb === undefined || file === undefined || extra !== undefined) throw new BadInput(usage);
  if (!(verb in flagsOf) || verb === "lines")
    throw new BadInput(`unknown verb ${JSON.stringify(named)}; ${usage}`);
  const text = values.text ?? false;
  if (verb === "pin") {
    const made = await newPin(file);
    return print(output, made, text ? [`The new PIN of ${made.name} is ${made.pin}.`] : null);
  }
  if (verb === "humps") {
    const ripple = accept(rippleOf(file, recordingFrom(file), values));
    return print(output, ripple, text ? rippleLines(ripple) : null);
  }
  const input = accept(parseJson(await readInput(file, terminal.input)));
  switch (verb) {
    case "check": {
      const checked = accept(checkFile(input, library));
      return print(output, checked, text ? [`ok ${checked.format} ${checked.id ?? ""}`] : null);
    }
    case "solve": {
      const point = accept(solveCircuit(accept(parseCircuit(input)), values as SolveOptions));
      return print(output, point, text ? pointLines(point) : null);
    }
    case "spice": {
      output.write(accept(spiceCircuit(accept(parseCircuit(input)), values as SolveOptions)));
      return;
    }
    case "instrument":
      return attachInstrument(accept(parseCircuit(input)), values, output);
    case "route": {
      const route = accept(routeFrom(input, values));
      return print(output, route, text ? routeLines(route) : null);
    }
    case "match": {
      const match = await answerMatch(input, values, terminal);
      return print(output, match, text ? matchLines(match) : null);
    }
    case "price":
      return print(output, accept(priceFrom(input)), null);
    case "faults": {
      const faults = accept(listFaults(accept(parseCircuit(input))));
      return print(
        output,
        faults,
        text ? faults.map(({ fault, prior }) => `${fault}\t${prior.toExponential(2)}`) : null,
      );
    }
    default: {
      if (isSeenCase(input)) {
        const seen = accept(diagnoseSeenCase(input, terminal.candidates));
        return print(output, wiringReport(seen), text ? wiringLines(seen) : null);
      }
      const found = accept(
        diagnoseCase(input, library, terminal.circuits, { explainAll: true, plan: values.plan ?? false }),
      );
      return print(output, diagnosisReport(found), text ? diagnosisLines(found) : null);
    }
  }
}

/** Runs one command and resolves with its exit status: 0, or 2 if the input was bad, with one line that says why. */
export async function runCommand(argv: string[], terminal: Terminal): Promise<0 | 2> {
  try {
    await run(argv, terminal);
    return 0;
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    terminal.errors.write(`airway: ${error.message.replaceAll("\n", " ")}\n`);
    return 2;
  }
}

/**
 * A line-protocol instrument: the common commands of IEEE 488.2-1992, and the syntax, short forms and error numbers of
 * SCPI-1999 (both from memory).
 */

/** A command a device understands: its header in SCPI's own notation, `MEASure[:SCALar]:VOLTage[:DC]?`. */
export interface ScpiCommand {
  readonly header: string;
  /**
   * Answers a query, or acts and returns null.
   * @throws ScpiError to refuse
   */
  readonly run: (parameters: readonly string[]) => ScpiAnswer;
}

/** Text, a block of bytes, or nothing. */
export type ScpiAnswer = string | Uint8Array | null;

/** A refusal with its number: -2xx for execution errors, -1xx for command errors. */
export class ScpiError extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
  }
}

const mostErrors = 16;
const eventBits = { done: 1, query: 4, execution: 16, command: 32, powerOn: 128 } as const;

interface Pattern {
  readonly mnemonics: readonly {
    readonly short: string;
    readonly long: string;
    readonly optional: boolean;
  }[];
  readonly query: boolean;
}

/** Splits a header in SCPI's notation into its mnemonics: capitals are the short form, brackets are optional. */
function patternOf(header: string): Pattern {
  const mnemonics = [...header.replace(/\?$/, "").matchAll(/(\[)?:?([A-Za-z*]+)\]?/g)].map(
    ([, bracket, word = ""]) => ({
      short: word.replace(/[a-z]/g, "").toUpperCase(),
      long: word.toUpperCase(),
      optional: bracket !== undefined,
    }),
  );
  return { mnemonics, query: header.endsWith("?") };
}

function fits({ mnemonics }: Pattern, words: readonly string[]): boolean {
  const from = (pattern: number, word: number): boolean => {
    const own = mnemonics[pattern];
    if (!own) return word === words.length;
    const given = words[word];
    const here = given !== undefined && (given === own.short || given === own.long);
    return (here && from(pattern + 1, word + 1)) || (own.optional && from(pattern + 1, word));
  };
  return from(0, 0);
}

/** Parameters split at commas outside quotes, without their quotes. */
export function scpiParameters(text: string): string[] {
  if (text.trim() === "") return [];
  const parts = text.match(/("(?:[^"]|"")*"|'(?:[^']|'')*'|[^,])+/g) ?? [];
  return parts.map((part) =>
    part
      .trim()
      .replace(/^"(.*)"$/s, (_, inner: string) => inner.replace(/""/g, '"'))
      .replace(/^'(.*)'$/s, (_, inner: string) => inner.replace(/''/g, "'")),
  );
}

const split = (line: string): string[] =>
  (line.match(/("(?:[^"]|"")*"|'(?:[^']|'')*'|[^;])+/g) ?? []).map((part) => part.trim());

/**
 * Bytes as a definite-length block: `#`, the number of digits in the length, the length, the bytes (IEEE 488.2,
 * 8.7.9).
 */
export function definiteBlock(bytes: Uint8Array): Uint8Array {
  const length = String(bytes.length);
  const head = `#${length.length}${length}`;
  const out = new Uint8Array(head.length + bytes.length);
  for (let i = 0; i < head.length; i++) out[i] = head.charCodeAt(i);
  out.set(bytes, head.length);
  return out;
}

/**
 * The bytes of a definite-length block; null while it is incomplete.
 * @throws ScpiError if it is not a block
 */
export function blockBytes(bytes: Uint8Array): { readonly data: Uint8Array; readonly used: number } | null {
  if (bytes.length < 2) return null;
  const digits = (bytes[1] ?? 0) - 48;
  if (bytes[0] !== 35 || digits < 1 || digits > 9) throw new ScpiError(-161, "Invalid block data");
  if (bytes.length < 2 + digits) return null;
  const length = Number(String.fromCharCode(...bytes.subarray(2, 2 + digits)));
  if (!Number.isInteger(length)) throw new ScpiError(-161, "Invalid block data");
  const end = 2 + digits + length;
  return bytes.length < end ? null : { data: bytes.subarray(2 + digits, end), used: end };
}

/** The instrument's end of the connection: it takes a line and returns the answer. */
export class ScpiDevice {
  private readonly commands: readonly { readonly pattern: Pattern; readonly run: ScpiCommand["run"] }[];
  private errors: string[] = [];
  private events: number = eventBits.powerOn;
  private eventMask = 0;
  private serviceMask = 0;

  /**
   * @param identity maker, model, serial number and firmware, separated by commas
   * @param reset restores the power-on state
   */
  constructor(identity: string, reset: () => void, commands: readonly ScpiCommand[]) {
    const act = (run: () => void) => (): null => {
      run();
      return null;
    };
    const number = ([text = ""]: readonly string[]): number => {
      const value = Number(text);
      if (text === "") throw new ScpiError(-109, "Missing parameter");
      if (!Number.isInteger(value) || value < 0 || value > 255)
        throw new ScpiError(-222, "Data out of range");
      return value;
    };
    const common: ScpiCommand[] = [
      { header: "*IDN?", run: () => identity },
      { header: "*RST", run: act(reset) },
      { header: "*CLS", run: act(() => this.clear()) },
      {
        header: "*ESE",
        run: (parameters) => {
          this.eventMask = number(parameters);
          return null;
        },
      },
      { header: "*ESE?", run: () => String(this.eventMask) },
      { header: "*ESR?", run: () => this.takeEvents() },
      {
        header: "*OPC",
        run: act(() => {
          this.events |= eventBits.done;
        }),
      },
      { header: "*OPC?", run: () => "1" },
      {
        header: "*SRE",
        run: (parameters) => {
          this.serviceMask = number(parameters);
          return null;
        },
      },
      { header: "*SRE?", run: () => String(this.serviceMask) },
      { header: "*STB?", run: () => String(this.status()) },
      { header: "*TST?", run: () => "0" },
      { header: "*WAI", run: act(() => undefined) },
      { header: "SYSTem:ERRor[:NEXT]?", run: () => this.errors.shift() ?? '0,"No error"' },
      { header: "SYSTem:VERSion?", run: () => "1999.0" },
    ];
    this.commands = [...common, ...commands].map(({ header, run }) => ({ pattern: patternOf(header), run }));
  }

  /** Takes one line of commands; returns the instrument's answer, or null if there is none. */
  answer(line: string): Uint8Array | null {
    const answers: Uint8Array[] = [];
    for (const message of split(line)) {
      if (message === "") continue;
      try {
        const answer = this.run(message);
        if (answer !== null) answers.push(typeof answer === "string" ? bytesOf(answer) : answer);
      } catch (error) {
        if (!(error instanceof ScpiError)) throw error;
        this.events |= error.code <= -200 ? eventBits.execution : eventBits.command;
        if (this.errors.length < mostErrors) this.errors.push(`${error.code},"${error.message}"`);
        else this.errors[mostErrors - 1] = '-350,"Queue overflow"';
      }
    }
    return answers.length === 0 ? null : joined(answers);
  }

  private run(message: string): ScpiAnswer {
    const [, header = "", query = "", rest = ""] = /^:?([^\s?]+)(\?)?\s*(.*)$/s.exec(message) ?? [];
    const words = header.toUpperCase().split(":");
    const found = this.commands.find(
      ({ pattern }) => pattern.query === (query === "?") && fits(pattern, words),
    );
    if (!found) throw new ScpiError(-113, "Undefined header");
    return found.run(scpiParameters(rest));
  }

  private clear(): void {
    this.errors = [];
    this.events = 0;
  }

  private takeEvents(): string {
    const events = this.events;
    this.events = 0;
    return String(events);
  }

  private status(): number {
    const summary = (this.events & this.eventMask) !== 0 ? 32 : 0;
    const queued = this.errors.length > 0 ? 4 : 0;
    const asks = ((summary | queued) & this.serviceMask) !== 0 ? 64 : 0;
    return summary | queued | asks;
  }
}

const bytesOf = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0) & 0xff);

/** Answers of one line, separated by semicolons and ended by a line feed. */
function joined(answers: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(answers.reduce((sum, { length }) => sum + length + 1, 0));
  let at = 0;
  answers.forEach((answer, i) => {
    out.set(answer, at);
    at += answer.length;
    out[at++] = i === answers.length - 1 ? 10 : 59;
  });
  return out;
}

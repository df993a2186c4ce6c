import type { z } from "zod";

/** The kind of mistake in an input, for code that acts on it. */
export const problemCodes = [
  /** It cannot be read as what it should be. */
  "unreadable",
  /** A required key or item is missing. */
  "missing",
  /** A key or item that the format does not know. */
  "unknown-key",
  /** A value of another type, or not one of those allowed. */
  "wrong-value",
  /** Too small, too large, too long, or too many. */
  "out-of-range",
  /** A name that refers to nothing. */
  "no-such-thing",
  /** A name, a pin or a place that is taken. */
  "duplicate",
  /** Values that are each allowed, but not together. */
  "contradiction",
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/** What is wrong with an input: where, what was expected, and what was found. */
export interface Problem {
  readonly code: ProblemCode;
  readonly path: string;
  readonly message: string;
}

export type Refused = { readonly ok: false; readonly problems: readonly Problem[] };
export type Parsed<T> = { readonly ok: true; readonly value: T } | Refused;

/** A refused result with its problems. */
export const refused = (problems: readonly Problem[]): Refused => ({ ok: false, problems });

/** A problem in one line: `parts.3.amps: expected a number, got "ten"`. */
export function problemText({ path, message }: Problem): string {
  return path === "" ? message : `${path}: ${message}`;
}

const longest = 60;

/** A value as it is quoted in an error: short, on one line, without control characters. */
export function quoted(value: unknown): string {
  if (value === undefined) return "nothing";
  if (Array.isArray(value)) return `a list of ${value.length}`;
  if (typeof value === "object" && value !== null) return "an object";
  const text = JSON.stringify(value);
  return text.length > longest ? `${text.slice(0, longest)}…` : text;
}

function valueAt(input: unknown, path: readonly PropertyKey[]): unknown {
  let value = input;
  for (const key of path) {
    if (typeof value !== "object" || value === null) return undefined;
    value = Object.hasOwn(value, key) ? (value as Record<PropertyKey, unknown>)[key] : undefined;
  }
  return value;
}

type Issue = z.core.$ZodIssue;

function expectation(issue: Issue): string {
  switch (issue.code) {
    case "invalid_type":
      return `expected ${issue.expected}`;
    case "invalid_value":
      return `expected ${issue.values.map((value) => JSON.stringify(value)).join(" or ")}`;
    case "unrecognized_keys":
      return `unknown key ${issue.keys.map(quoted).join(", ")}`;
    case "too_small":
      return `must be ${issue.inclusive === false ? "above" : "at least"} ${issue.minimum}${countedIn(issue.origin)}`;
    case "too_big":
      return `must be ${issue.inclusive === false ? "below" : "at most"} ${issue.maximum}${countedIn(issue.origin)}`;
    default:
      return issue.message;
  }
}

function codeOf({ code }: Issue): ProblemCode {
  if (code === "too_small" || code === "too_big") return "out-of-range";
  return code === "custom" ? "contradiction" : "wrong-value";
}

function countedIn(origin: string): string {
  if (origin === "string") return " characters";
  return origin === "array" ? " entries" : "";
}

/** The branch of a failed union that matched furthest, so that the message names the real mistake. */
function deepest(issue: Issue): readonly Issue[] {
  if (issue.code !== "invalid_union" || issue.errors.length === 0) return [issue];
  const best = [...issue.errors].sort((a, b) => a.length - b.length)[0] ?? [];
  return best.map((inner) => ({ ...inner, path: [...issue.path, ...inner.path] }));
}

/**
 * Turns Zod's issues into problems that name the path, what was expected and what was found.
 * @param input the refused value, for quoting
 */
export function problemsOf(error: z.ZodError, input: unknown): Problem[] {
  return error.issues.flatMap(deepest).map((issue) => {
    const path = issue.path.map(String).join(".");
    if (issue.code === "unrecognized_keys") return { code: "unknown-key", path, message: expectation(issue) };
    if (issue.code === "invalid_union" && "discriminator" in issue && issue.discriminator) {
      const options = "options" in issue && Array.isArray(issue.options) ? issue.options : [];
      const expected = options.length > 0 ? `, expected one of ${options.join(", ")}` : "";
      return {
        code: "wrong-value",
        path,
        message: `not a known ${issue.discriminator}: ${quoted(valueAt(input, issue.path))}${expected}`,
      };
    }
    return {
      code: codeOf(issue),
      path,
      message: `${expectation(issue)}, got ${quoted(valueAt(input, issue.path))}`,
    };
  });
}

// Words that the glossary has replaced must not return, on screens or in documents; and files that documents name must
// exist.
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { join, relative } from "node:path";
import { describe, expect, test } from "@jest/globals";
import ts from "typescript";

const root = process.cwd();

/** Each phrase, and its replacement. */
const replaced: readonly (readonly [RegExp, string])[] = [
  [/on the ramps/i, "Open jobs"],
  [/\bnext look\b/i, "next test"],
  [/\bother looks\b/i, "other tests"],
  [/\bout comes\b/i, "Remove"],
  [/\bway back\b/i, "refitting"],
  [/\bshop's terms\b/i, "rates and tax"],
  [/\bhold (it|them) together\b/i, "compare"],
  [/\bheat fuse\b/i, "thermal link"],
  [/\bchopping control\b/i, "PWM control module"],
  [/\bstrike out\b|\bstruck out\b/i, "delete"],
  [/\bhumps?\b(?!\|)/i, "ripple"],
  [/\bin the end\b/i, "Total including comeback risk"],
  [/\bproof run\b/i, "final check"],
  [/\bnot settled\b/i, "not certain yet"],
  [/\bwhat killed it\b/i, "root cause"],
  [
    /\btake it in\b|\bgive it back\b|\bleave it standing\b/i,
    "start job, hand over to customer, save and leave",
  ],
];

function filesBelow(folder: string, pattern: RegExp): string[] {
  return readdirSync(join(root, folder)).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(join(root, path)).isDirectory()) return filesBelow(path, pattern);
    return pattern.test(name) ? [path] : [];
  });
}

/** The texts of a source file: its strings and templates that contain a space, and the text between its tags. */
function saidIn(source: string): string[] {
  const said: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node)) said.push(node.text);
    else if (ts.isStringLiteralLike(node) && node.text.includes(" ")) said.push(node.text);
    else if (ts.isTemplateExpression(node))
      said.push(
        [node.head, ...node.templateSpans.map(({ literal }) => literal)].map(({ text }) => text).join("…"),
      );
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile("source.tsx", source, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX));
  return said.map((text) => text.replaceAll(/\s+/g, " ").trim()).filter((text) => /[a-z]/i.test(text));
}

const used = (text: string): string[] =>
  replaced.flatMap(([pattern, instead]) =>
    pattern.test(text) ? [`“${text.slice(0, 80)}”: write “${instead}”`] : [],
  );

describe("words the glossary replaces", () => {
  const sources = ["app", "words", "cli"].flatMap((folder) => filesBelow(folder, /(?<!\.test)\.tsx?$/));

  test("no screen uses them", () => {
    expect(sources.length).toBeGreaterThan(300);
    const found = sources.flatMap((file) =>
      saidIn(readFileSync(join(root, file), "utf8")).flatMap((text) =>
        used(text).map((own) => `${file}: ${own}`),
      ),
    );
    expect(found).toEqual([]);
  });

  test("the check sees both strings and text between tags", () => {
    expect(saidIn('const a = "the next look"; <p>\n Out comes\n</p>').flatMap(used)).toHaveLength(2);
  });
});

describe("documents", () => {
  const documents = ["README.md", ...filesBelow("docs", /\.md$/)];

  test("name only files and folders that exist", () => {
    const missing = documents.flatMap((file) => {
      const text = readFileSync(join(root, file), "utf8");
      const named = [
        ...text.matchAll(/`((?:core|app|words|cli|db|server|scripts|e2e|benchmarks|demo)\/[\w./-]+)`/g),
      ];
      const linked = [...text.matchAll(/\]\(((?!https?:)[^)#\s]+)[^)]*\)/g)];
      return [
        ...named.map(([, path]) => path ?? ""),
        ...linked.map(([, path]) => join(relative(root, join(root, file, "..")), path ?? "")),
      ]
        .filter((path) => !existsSync(join(root, path)))
        .map((path) => `${file}: ${path}`);
    });
    expect(missing).toEqual([]);
  });

  test("the first page stays short", () => {
    const words = readFileSync(join(root, "README.md"), "utf8").split(/\s+/).filter(Boolean);
    expect(words.length).toBeLessThanOrEqual(700);
  });
});

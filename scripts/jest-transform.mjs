// Transpiles TypeScript for the unit tests, with the globals a module uses bound to module constants. Jest runs tests
// in a `vm` context, where every access to a global such as Math goes through an interceptor that the compiler cannot
// optimise: numeric code ran up to twenty times slower than outside. Jest's own remedy (sandboxInjectedGlobals) only
// works for CommonJS modules.
import swcJest from "@swc/jest";

const swc = swcJest.createTransformer({
  jsc: {
    target: "es2023",
    parser: { syntax: "typescript", tsx: true },
    transform: { react: { runtime: "automatic" } },
  },
  module: { type: "es6" },
});

/** Globals met in inner loops. */
const globals = [
  "Array",
  "Float32Array",
  "Float64Array",
  "Int32Array",
  "JSON",
  "Map",
  "Math",
  "Number",
  "Object",
  "Set",
  "String",
  "Uint8Array",
];

/** One line that binds the globals a module uses and does not declare itself; line numbers stay the same. */
function bound(code) {
  const names = globals.filter(
    (name) =>
      new RegExp(`(?<![.\\w$])${name}(?![\\w$])`).test(code) &&
      !new RegExp(`(?:const|let|var|class|function|[{,]|\\bas)\\s+${name}(?![\\w$.])`).test(code),
  );
  return names.length === 0 ? "" : `const { ${names.join(", ")} } = globalThis;`;
}

const withBound = (result) => ({ ...result, code: bound(result.code) + result.code });

export default {
  canInstrument: false,
  getCacheKey: (source, file, options) => `${swc.getCacheKey(source, file, options)}-bound-2`,
  process: (source, file, options) => withBound(swc.process(source, file, options)),
  processAsync: async (source, file, options) => withBound(await swc.processAsync(source, file, options)),
};

// The layers of the house, from the bottom up. A folder may only import folders before it in its list.
const core = [
  "problem",
  "chance",
  "units",
  "labour",
  "money",
  "signal",
  "circuit",
  "motor",
  "access",
  "trace",
  "solve",
  "sound",
  "fault",
  "match",
  "ripple",
  "recording",
  "instrument",
  "predict",
  "sums",
  "diagnose",
  "workList",
  "records",
  "proof",
  "practice",
  "wiring",
  "formats",
];
const app = [
  "ui",
  "find",
  "shell",
  "text",
  "network",
  "people",
  "sheet",
  "engine",
  "job",
  "board",
  "entries",
  "notes",
  "complaint",
  "seen",
  "probe",
  "motor",
  "parts",
  "repair",
  "workList",
  "estimate",
  "check",
  "close",
  "records",
  "practice",
  "sums",
  "shelf",
  "trace",
  "importing",
  "settings",
  "routes",
];
/** The order of folders inside one folder of the core. */
const inside = {
  "core/solve": ["netlist", "parts", "network", "devices", "checks"],
  "core/ripple": ["rhythm", "turn", "chopping"],
  "core/diagnose": ["belief", "explain", "history", "tests", "verdict"],
};

/** One rule for each folder: it reaches none of those after it. */
const ordered = (top, folders) =>
  folders.slice(0, -1).map((folder, index) => ({
    name: `order: ${top}/${folder}`,
    comment: `${top}/${folder} imports only what stands before it: see .dependency-cruiser.mjs`,
    severity: "error",
    from: { path: `^${top}/${folder}/` },
    to: { path: `^${top}/(${folders.slice(index + 1).join("|")})/` },
  }));

/** A folder that is missing from the list has no place in the order. */
const listed = (top, folders) => ({
  name: `listed: ${top}`,
  comment: `give the folder its place in .dependency-cruiser.mjs`,
  severity: "error",
  from: {},
  to: { path: `^${top}/[^/]+/`, pathNot: `^${top}/(${folders.join("|")}|testing)/` },
});

const only = (name, from, allowed) => ({
  name,
  severity: "error",
  from: { path: from },
  to: { path: "^(app|benchmarks|cli|core|db|e2e|scripts|server|words)/", pathNot: allowed },
});

export default {
  forbidden: [
    {
      name: "no circles",
      comment: "type imports count too",
      severity: "error",
      from: {},
      to: { circular: true },
    },
    ...ordered("core", core),
    ...ordered("app", app),
    ...Object.entries(inside).flatMap(([top, folders]) => ordered(top, folders)),
    listed("core", core),
    listed("app", [...app, "styles"]),
    {
      name: "nothing imports routes",
      comment: "but benchmarks, which time a page's loader as the server calls it",
      severity: "error",
      from: { pathNot: "^(app/routes|benchmarks)/" },
      to: { path: "^app/routes/" },
    },
    {
      name: "routes do not import routes",
      severity: "error",
      from: { path: "^app/routes/" },
      to: { path: "^app/routes/" },
    },
    only("core stands alone", "^core/", "^core/"),
    only("words need the core alone", "^words/", "^(core|words)/"),
    only("the database needs no page", "^db/", "^(core|words|db)/"),
    only(
      "the command line needs no page",
      "^cli/",
      "^((core|words|cli)/|db/people/|server/instrumentSocket)",
    ),
    only("pages need no server", "^app/", "^((app|core|db|words)/|server/instrumentSocket)"),
    {
      name: "core without Node",
      severity: "error",
      from: { path: "^core/", pathNot: "^core/testing/" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "resolvable",
      severity: "error",
      from: {},
      to: { couldNotResolve: true, pathNot: "^(\\./\\+types|virtual:|\\.\\./build)" },
    },
  ],
  options: {
    exclude: { path: "(\\.test\\.tsx?$|\\+types)" },
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "types", "default"] },
  },
};

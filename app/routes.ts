import { index, layout, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  index("routes/board.tsx"),
  route("shelf", "routes/shelf.tsx"),
  route("bring-in", "routes/shelfImport.tsx"),
  route("shelf/:id", "routes/shelfCircuit.tsx"),
  route("shelf/:id/file/:kind", "routes/shelfFile.ts"),
  route("theme", "routes/theme.ts"),
  route("jobs/new", "routes/newJob.tsx"),
  route("jobs/:id/plan", "routes/plan.ts"),
  route("jobs/:id/pulse", "routes/pulse.ts"),
  route("jobs/:id/entries", "routes/entries.ts"),
  route("jobs/:id/predict", "routes/predict.ts"),
  route("jobs/:id/states", "routes/sheetStates.ts"),
  route("jobs/:id/path", "routes/path.ts"),
  route("jobs/:id/notes", "routes/notes.ts"),
  route("jobs/:id/photos/:note", "routes/photo.ts"),
  route("jobs/:id", "routes/job.tsx", [
    index("routes/jobStart.ts"),
    route("complaint", "routes/complaint.tsx"),
    layout("routes/bench.tsx", [route("probe", "routes/probe.tsx")]),
    route("verdict", "routes/verdict.tsx"),
    route("prove", "routes/prove.tsx"),
    route("close", "routes/close.tsx"),
  ]),
  route("*", "routes/notFound.tsx"),
] satisfies RouteConfig;

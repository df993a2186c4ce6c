import { index, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  index("routes/board.tsx"),
  route("theme", "routes/theme.ts"),
  route("jobs/new", "routes/newJob.tsx"),
  route("jobs/:id/plan", "routes/plan.ts"),
  route("jobs/:id/pulse", "routes/pulse.ts"),
  route("jobs/:id", "routes/job.tsx", [
    index("routes/jobStart.ts"),
    route("complaint", "routes/complaint.tsx"),
    route("probe", "routes/probe.tsx"),
    route("verdict", "routes/verdict.tsx"),
    route("prove", "routes/prove.tsx"),
    route("close", "routes/close.tsx"),
  ]),
  route("*", "routes/notFound.tsx"),
] satisfies RouteConfig;

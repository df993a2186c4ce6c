import type { useLoaderData } from "react-router";
import type { loader as benchLoader } from "../routes/bench";
import type { loader as probeLoader } from "../routes/probe";

/** What the bench has of a circuit whatever was read, and what it has of the job after each reading. */
export type Bench = ReturnType<typeof useLoaderData<typeof benchLoader>>;
export type Probed = ReturnType<typeof useLoaderData<typeof probeLoader>>;

import type { useLoaderData } from "react-router";
import type { loader } from "../routes/traceDraft";

/** What the trace's page has of a draft. */
export type TracedDraft = ReturnType<typeof useLoaderData<typeof loader>>;

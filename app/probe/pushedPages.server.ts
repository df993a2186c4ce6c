import { createContext } from "react-router";

/**
 * Whether whoever sends a request has a job's probe page open to which its next state is pushed, because others look at
 * the job too. The answer to an entry then does without the page.
 */
export const pushedPagesContext = createContext<(jobId: number) => boolean>(() => false);

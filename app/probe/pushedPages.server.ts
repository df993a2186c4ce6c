import { createContext } from "react-router";

/**
 * Whether a job's new page is pushed to the sender of this request. It is while others look at the job too; the answer
 * to an entry then leaves the page out.
 */
export const pushedPagesContext = createContext<(jobId: number) => boolean>(() => false);

import { useFetcher } from "react-router";
import type { MotorPageData } from "./motorPageView.server";
import type { RecordingLine } from "./motorView.server";

/** Actions on a recording: keep it as the healthy one of its motor part, delete it, restore it. */
export function RecordingActions({ page, trace }: { page: MotorPageData; trace: RecordingLine }) {
  const fetcher = useFetcher();
  return (
    <fetcher.Form method="post" className="flex gap-2">
      <input type="hidden" name="trace" value={trace.id} />
      <input type="hidden" name="motor" value={page.motor.id} />
      <input type="hidden" name="healthy" value={trace.healthy ? "no" : "yes"} />
      <input type="hidden" name="struck" value={trace.struck ? "no" : "yes"} />
      {trace.record.kind === "humps" && (
        <button className="btn" type="submit" name="intent" value="healthy">
          {trace.healthy ? "Stop using as the healthy reference" : "Use as this motor's healthy reference"}
        </button>
      )}
      <button className="btn" type="submit" name="intent" value="strike">
        {trace.struck ? "Restore" : "Delete"}
      </button>
    </fetcher.Form>
  );
}

import { priced } from "@core/money/estimate";
import { estimatesOf } from "@db/repositories/estimates.server";
import { data } from "react-router";
import { estimateCsv } from "../estimate/estimateCsv";
import { estimatePdf } from "../estimate/estimatePdf.server";
import { jobAt } from "../job/jobView.server";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/estimateFile";

/** A version of an estimate, or the bill, as a file to keep. */
export async function loader({ params }: Route.LoaderArgs) {
  const { job } = await jobAt(params.id);
  const version = (await estimatesOf(job.id)).find(({ number }) => String(number) === params.number);
  if (!version) throw data("There is no such version.", { status: 404 });
  const { body, kind, number, madeAt, approvedAt, approvedBy } = version;
  const own = priced(body.lines, body.rounding);
  const file = (content: BodyInit, type: string): Response =>
    new Response(content, {
      headers: {
        "Content-Type": type,
        "Content-Disposition": `attachment; filename="job-${job.id}-${kind}-${number}.${params.kind}"`,
        "X-Content-Type-Options": "nosniff",
      },
    });
  switch (params.kind) {
    case "csv":
      return file(estimateCsv(own, body.currency), "text/csv; charset=utf-8");
    case "pdf": {
      const zone = shopZone();
      const head = {
        kind,
        number,
        job: job.id,
        vehicle: `${job.vehicle.model}, ${job.vehicle.label}`,
        made: dayText(madeAt, zone),
        approved: approvedAt ? `${dayText(approvedAt, zone)}, ${approvedBy ?? ""}` : null,
      };
      return file(new Uint8Array(await estimatePdf(head, body, own)), "application/pdf");
    }
    default:
      throw data("There is no such file.", { status: 404 });
  }
}

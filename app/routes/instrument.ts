import { z } from "zod";
import { InstrumentProblem } from "../../server/instrumentSocket";
import { jobAt } from "../job/jobView.server";
import {
  confirmPort,
  isConfirmed,
  practicePort,
  readInstrument,
  readScope,
} from "../motor/instruments.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/instrument";

const short = z.string().max(64).default("");
const form = z.object({
  /** The port of a real instrument's bridge; empty for the job's practice instrument. */
  port: z.union([z.literal(""), z.coerce.number().int().min(1).max(65_535)]),
  /** `confirm` says that an instrument listens on the port. */
  what: z.enum(["volts", "amps", "trace", "confirm"]),
  red: short,
  black: short,
  around: short,
  key: z.enum(["run", "off"]),
  engine: z.enum(["yes", "no"]).transform((word) => word === "yes"),
  setting: short,
  rateHz: z.coerce.number().min(100).max(500_000).default(20_000),
  samples: z.coerce.number().int().min(100).max(2_000_000).default(40_000),
});

const headers = { "Cache-Control": "no-store" };
const refuse = (problem: string) => Response.json({ problem }, { status: 422, headers });

/** Asks an instrument on this machine's loopback: a figure with its source, or a recording's samples. */
export async function action({ params, request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  const { job } = await jobAt(params.id);
  if (!parsed.success) return refuse("Enter the port of the instrument, a whole number such as 5025.");
  const { port: given, what, rateHz, samples, ...rest } = parsed.data;
  const practice = practicePort(job.id);
  const port = given === "" ? practice : given;
  if (port === null) return refuse("Attach the practice instrument, or enter the port of a real one.");
  if (what === "confirm") {
    confirmPort(port);
    return Response.json({ confirmed: port }, { headers });
  }
  if (port !== practice && !isConfirmed(port))
    return refuse(`First confirm that your instrument listens on port ${port}.`);
  const asked = { ...rest, what: what === "trace" ? ("amps" as const) : what };
  try {
    if (what !== "trace")
      return Response.json(await readInstrument(port, port === practice, asked), { headers });
    const bytes = await readScope(port, port === practice, asked, { rateHz, samples });
    return new Response(new Uint8Array(bytes), {
      headers: { ...headers, "Content-Type": "application/octet-stream" },
    });
  } catch (error) {
    if (error instanceof InstrumentProblem) return refuse(error.message);
    throw error;
  }
}

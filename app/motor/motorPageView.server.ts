import type { Circuit } from "@core/circuit/circuit";
import type { Job } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { healthyRecordingsOf, recordingsOf } from "@db/repositories/recordings.server";
import { partName } from "@words/partName";
import { data } from "react-router";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import { practicePort } from "./instruments.server";
import { motorPart, motorView, recordingLines, wholeNetlist } from "./motorView.server";

/**
 * Everything the motor page shows of a job; answers 404 if the circuit has no motor.
 * @param asked id of the motor; the first one if there is no such motor
 * @param engine true if the engine runs and charges
 */
export async function motorPageView(job: Job, circuit: Circuit, asked: string | null, engine: boolean) {
  const motors = circuit.parts.flatMap((part) => (part.kind === "motor" ? [part] : []));
  const motor = motors.find(({ id }) => id === asked) ?? motors[0];
  if (!motor) throw data("This circuit has no motor.", { status: 404 });
  const [stored, traces, healthy] = await Promise.all([
    readingsOf(job.id),
    recordingsOf(job.id),
    healthyRecordingsOf(motorPart(circuit, motor.id)),
  ]);
  const own = traces.filter(({ record }) => record.motor === motor.id);
  const elsewhere = healthy.filter(({ jobId, record }) => jobId !== job.id && record.kind === "humps");
  return {
    id: job.id,
    stage: job.stage,
    motors: motors.map(({ id }) => ({ id, name: `${id}, ${partName(circuit, id)}` })),
    motor: {
      id: motor.id,
      bars: motor.commutatorBars ?? null,
      poles: 2 * (motor.polePairs ?? 1),
      ratedAmps: motor.ratedAmps,
      assumed: motor.assumed === true,
    },
    chopped: circuit.parts.some((part) => part.kind === "module" && part.drive === "pwm"),
    settings: circuit.settings,
    points: wholeNetlist(circuit).points.names,
    engine,
    ...motorView(circuit, motor.id, stored, engine),
    traces: recordingLines(own, job.fittedAt),
    healthy: recordingLines(elsewhere, null),
    practice: practicePort(job.id),
    token: randomId(),
    zone: shopZone(),
  };
}

export type MotorPageData = Awaited<ReturnType<typeof motorPageView>>;

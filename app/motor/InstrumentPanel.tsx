import { useEffect, useRef, useState } from "react";
import { useFetcher, useRevalidator } from "react-router";
import { randomId } from "../text/randomId";
import { Fold } from "../ui/Fold";
import { SmallField } from "../ui/SmallField";
import type { MotorPageData } from "./motorPageView.server";
import { SpeedChoice } from "./SpeedChoice";

interface PanelProps {
  readonly page: MotorPageData;
  readonly view: "draw" | "humps" | "sound";
}

interface Figure {
  readonly value: number;
  readonly source: string;
  readonly reading: Record<string, unknown>;
}

/** Largest relative difference of three successive figures that count as steady. */
const steadyWithin = 0.015;
const everyMilliseconds = 1500;

/**
 * Queries the job's instrument.
 * @throws with a message for the reader
 */
export async function askInstrument(
  jobId: number,
  fields: Readonly<Record<string, string>>,
): Promise<Response> {
  const answer = await fetch(`/jobs/${jobId}/instrument`, {
    method: "POST",
    body: new URLSearchParams(fields),
  }).catch(() => null);
  if (answer?.ok) return answer;
  const told = answer?.status === 422 ? ((await answer.json()) as { problem: string }).problem : null;
  throw new Error(told ?? "The server does not answer.");
}

/** What the instrument is asked, and where its leads are. */
function useAsked(page: MotorPageData) {
  const [port, setPort] = useState("");
  const [confirmedPort, setConfirmedPort] = useState("");
  const [what, setWhat] = useState<"amps" | "volts">("amps");
  const [setting, setSetting] = useState(page.settings.at(-1) ?? "");
  const [leads, setLeads] = useState({ red: `${page.motor.id}.+`, black: `${page.motor.id}.-` });
  const around = page.motor.id;
  const setup = { key: "run", setting, ...(page.engine ? { engine: true } : {}) };
  return {
    port,
    setPort,
    isConfirmed: port === confirmedPort,
    confirm: () => setConfirmedPort(port),
    what,
    setWhat,
    setting,
    setSetting,
    leads,
    setLeads,
    fields: { port, what, ...leads, around, key: "run", engine: page.engine ? "yes" : "no", setting },
    test: what === "amps" ? { test: "amps", around, ...setup } : { test: "volts", ...leads, ...setup },
  };
}

/** Figures read on a tap, and stored as readings. */
function useFigure(page: MotorPageData, { fields, test, what }: ReturnType<typeof useAsked>) {
  const [figure, setFigure] = useState<Figure | null>(null);
  const [problem, setProblem] = useState("");
  const stored = useFetcher<{ problem?: string }>();
  const read = async (): Promise<Figure | null> => {
    try {
      const { value, source } = (await (await askInstrument(page.id, fields)).json()) as {
        value: number;
        source: string;
      };
      const made = { value, source, reading: { ...test, [what]: Number(value.toFixed(2)) } };
      setFigure(made);
      setProblem("");
      return made;
    } catch (error) {
      setProblem((error as Error).message);
      return null;
    }
  };
  const keep = ({ reading, source }: Figure): void => {
    void stored.submit(
      { intent: "reading", token: randomId(), reading: JSON.stringify(reading), source },
      { method: "post" },
    );
  };
  return { figure, read, keep, problem: problem || stored.data?.problem || "" };
}

/** Whether the last three figures agree. */
function isSteady(values: readonly number[]): boolean {
  const [a, b, c] = values.slice(-3);
  if (a === undefined || b === undefined || c === undefined) return false;
  const largest = steadyWithin * Math.max(0.2, Math.abs(c));
  return Math.abs(a - c) <= largest && Math.abs(b - c) <= largest;
}

/** Reads repeatedly until three successive figures agree, and keeps the last. */
function useSteadyReading({ read, keep }: Pick<ReturnType<typeof useFigure>, "read" | "keep">) {
  const [byItself, setByItself] = useState(false);
  const own = useRef({ read, keep });
  own.current = { read, keep };
  useEffect(() => {
    if (!byItself) return;
    let going = true;
    // One read after another: reads that overlap on a slow instrument would each be saved.
    const readUntilSteady = async (): Promise<void> => {
      const values: number[] = [];
      while (going) {
        const made = await own.current.read();
        if (!going) return;
        if (made) values.push(made.value);
        const steady = made !== null && isSteady(values);
        if (steady) own.current.keep(made);
        if (steady || !made) return setByItself(false);
        await new Promise((resolve) => setTimeout(resolve, everyMilliseconds));
      }
    };
    void readUntilSteady();
    return () => {
      going = false;
    };
  }, [byItself]);
  return [byItself, setByItself] as const;
}

/** A meter or clamp on a socket of this machine, or a practice one; figures are read on a tap or automatically. */
export function InstrumentPanel({ page, view }: PanelProps) {
  const asked = useAsked(page);
  const { revalidate } = useRevalidator();
  const { figure, read, keep, problem } = useFigure(page, asked);
  const [byItself, setByItself] = useSteadyReading({ read, keep });
  const ready = page.practice !== null || (asked.port !== "" && asked.isConfirmed);
  if (view === "sound") return null;
  return (
    <Fold
      title={
        page.practice === null
          ? "Network instrument or practice instrument"
          : `Practice instrument attached, port ${page.practice}`
      }
    >
      <div className="flex flex-wrap items-end gap-2 pb-2 text-base">
        <Practice page={page} onChange={() => void revalidate()} />
        <RealPort jobId={page.id} {...asked} />
        {view === "draw" && (
          <>
            <AskedFields page={page} {...asked} />
            <button type="button" className="btn" disabled={!ready} onClick={() => void read()}>
              Read
            </button>
            <label className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={byItself}
                disabled={!ready}
                onChange={(event) => setByItself(event.target.checked)}
              />
              save automatically once steady
            </label>
            <output className="figures min-w-32 text-xl font-bold" aria-live="polite">
              {figure ? `${figure.value.toFixed(2)} ${asked.what === "amps" ? "A" : "V"}` : ""}
            </output>
            {figure && (
              <button type="button" className="btn btn-main" onClick={() => keep(figure)}>
                Save this reading
              </button>
            )}
          </>
        )}
        {problem !== "" && (
          <p role="alert" className="w-full text-danger">
            {problem}
          </p>
        )}
      </div>
    </Fold>
  );
}

interface RealPortProps extends ReturnType<typeof useAsked> {
  readonly jobId: number;
}

/** The port of a real instrument: nothing is sent to it before a person confirms that it is one. */
function RealPort({ jobId, port, setPort, isConfirmed, confirm, fields }: RealPortProps) {
  const [problem, setProblem] = useState("");
  const send = (): void => {
    askInstrument(jobId, { ...fields, what: "confirm" }).then(
      () => {
        setProblem("");
        confirm();
      },
      (thrown: unknown) => setProblem((thrown as Error).message),
    );
  };
  return (
    <>
      <SmallField label="port of a real instrument" value={port} onChange={setPort} hint="5025" />
      {port !== "" && !isConfirmed && (
        <div className="grid max-w-xs gap-1">
          <p className="text-soft">
            Airway sends commands to this port. Confirm it only if your own instrument is there.
          </p>
          <button type="button" className="btn" onClick={send}>
            My instrument is on port {port}
          </button>
          {problem !== "" && (
            <p role="alert" className="text-danger">
              {problem}
            </p>
          )}
        </div>
      )}
    </>
  );
}

interface AskedFieldsProps extends ReturnType<typeof useAsked> {
  readonly page: MotorPageData;
}

/** What is read, between which points, and at which speed. */
function AskedFields({ page, what, setWhat, leads, setLeads, setting, setSetting }: AskedFieldsProps) {
  return (
    <>
      <label className="grid text-soft">
        reads
        <select
          className="field text-ink"
          value={what}
          onChange={(event) => setWhat(event.target.value as "amps" | "volts")}
        >
          <option value="amps">clamp on {page.motor.id}</option>
          <option value="volts">volts between two points</option>
        </select>
      </label>
      {what === "volts" &&
        (["red", "black"] as const).map((lead) => (
          <SmallField
            key={lead}
            label={`${lead} lead`}
            list="drop-points"
            value={leads[lead]}
            onChange={(own) => setLeads({ ...leads, [lead]: own })}
          />
        ))}
      <SpeedChoice
        label="speed"
        called="speed during the reading"
        settings={page.settings}
        value={setting}
        onChange={setSetting}
      />
    </>
  );
}

function Practice({ page, onChange }: { page: MotorPageData; onChange: () => void }) {
  const fetcher = useFetcher<{ problem?: string }>();
  const { id } = page.motor;
  const faults: readonly (readonly [string, string])[] = [
    ["", "nothing wrong"],
    [`${id}:tight@1.6`, "a tight motor"],
    [`${id}:worn-brushes@0.4`, "a worn commutator"],
    [`${id}:shorted-turns@0.6`, "a shorted winding"],
    [`${id}:unbalanced`, "a wheel out of balance"],
    ["CAR:filter-blocked@0.4", "a blocked filter"],
  ];
  return (
    <fetcher.Form method="post" className="flex items-end gap-2" onSubmit={() => setTimeout(onChange, 0)}>
      {page.practice === null ? (
        <>
          <label className="grid text-soft">
            practice vehicle with
            <select name="fault" className="field text-ink">
              {faults.map(([fault, words]) => (
                <option key={fault} value={fault}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <button className="btn" type="submit" name="intent" value="attach">
            Attach practice instrument
          </button>
        </>
      ) : (
        <button className="btn" type="submit" name="intent" value="detach">
          Detach instrument
        </button>
      )}
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger">
          {fetcher.data.problem}
        </p>
      )}
    </fetcher.Form>
  );
}

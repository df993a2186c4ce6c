import { envelopeOf } from "@core/signal/envelope";
import type { Dispatch, SetStateAction } from "react";
import { useEffect, useState } from "react";
import type { Mark } from "../ui/chart";
import { axes, envelopePoints, line, type Points } from "../ui/chartParts";
import { Picture } from "../ui/Picture";
import { amps, hertz, rpm, seconds } from "./figureText";
import type { RippleLine } from "./rippleLine";

const columns = 1200;
const turnsShown = 4;

/** The stored samples of a recording; null until they are loaded. */
function useKept(id: string): Float32Array | null {
  const [kept, setKept] = useState<{ id: string; samples: Float32Array } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    fetch(`/traces/${id}/samples`, { signal: stop.signal })
      .then((answer) => (answer.ok ? answer.arrayBuffer() : null))
      .then((bytes) => bytes && setKept({ id, samples: new Float32Array(bytes) }))
      .catch(() => undefined);
    return () => stop.abort();
  }, [id]);
  return kept?.id === id ? kept.samples : null;
}

const Slider = ({
  label,
  value,
  step,
  onChange,
}: {
  label: string;
  value: number;
  step: number;
  onChange: (value: number) => void;
}) => (
  <label className="flex min-h-11 grow items-center gap-2">
    {label}
    <input
      type="range"
      className="grow"
      min={0}
      max={1}
      step={step}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
    />
  </label>
);

/** A few turns as sampled, which can be moved and zoomed; two cursors measure between any two places. */
export function CloseUp({ trace }: { trace: RippleLine }) {
  const { figures, picture } = trace.record;
  const kept = useKept(trace.id);
  const turn = figures.rpm ? 60 / figures.rpm : figures.humpHz ? 12 / figures.humpHz : 0.05;
  const [at, setAt] = useState(0);
  const [turns, setTurns] = useState(turnsShown);
  const [cursors, setCursors] = useState<readonly [number, number] | null>(null);
  if (!kept || kept.length < 2) return null;
  const wide = Math.max(16, Math.round(turns * turn * picture.rateHz));
  const from = Math.round(at * Math.max(0, kept.length - wide));
  const to = Math.min(kept.length, from + wide);
  const begin = picture.keptFrom + from / picture.rateHz;
  const end = begin + (to - from) / picture.rateHz;
  const points: Points =
    to - from <= 2 * columns
      ? Array.from(kept.subarray(from, to), (y, i) => ({ x: begin + i / picture.rateHz, y }))
      : (({ low, high }) => envelopePoints(low, high, begin, end))(envelopeOf(kept, { from, to }, columns));
  /** A cursor's position: its time, and the nearest sample. */
  const placeOf = (share: number) => {
    const index = Math.min(kept.length - 1, from + Math.round(share * (to - from - 1)));
    return { time: picture.keptFrom + index / picture.rateHz, value: kept[index] ?? 0 };
  };
  const [a, b] = cursors ? [placeOf(cursors[0]), placeOf(cursors[1])] : [null, null];
  const marks: Mark[] =
    a && b
      ? [
          { x: a.time, label: "A" },
          { x: b.time, label: "B" },
        ]
      : [];
  const apart = a && b ? Math.abs(b.time - a.time) : 0;
  return (
    <div className="grid gap-1">
      <CloseUpPicture
        turns={turns}
        begin={begin}
        trace={trace}
        from={from}
        to={to}
        marks={marks}
        points={points}
        end={end}
      />
      <CloseUpRange
        at={at}
        setAt={setAt}
        turns={turns}
        setTurns={setTurns}
        cursors={cursors}
        setCursors={setCursors}
      />
      {cursors && a && b && <Cursors cursors={cursors} setCursors={setCursors} a={a} b={b} apart={apart} />}
    </div>
  );
}

interface CloseUpPictureProps {
  readonly turns: number;
  readonly begin: number;
  readonly trace: RippleLine;
  readonly from: number;
  readonly to: number;
  readonly marks: Mark[];
  readonly points: Points;
  readonly end: number;
}

/** A few turns of the current. */
function CloseUpPicture({ turns, begin, trace, from, to, marks, points, end }: CloseUpPictureProps) {
  return (
    <Picture
      title="Close up"
      words={`${turns} turns from ${begin.toFixed(3)} s`}
      file={`close-${trace.record.name}`}
      of={`${trace.id} ${from} ${to} ${marks.map((mark) => ("x" in mark ? mark.x : "")).join()}`}
      marks={marks}
      height={200}
      configure={(colours) => ({
        type: "line",
        data: { datasets: [line("current", points, colours.ink, 1.5)] },
        options: {
          scales: {
            ...axes("seconds", "amps"),
            x: { type: "linear", min: begin, max: end, title: { display: true, text: "seconds" } },
          },
          plugins: { legend: { display: false } },
        },
      })}
    />
  );
}

interface CloseUpRangeProps {
  readonly at: number;
  readonly setAt: Dispatch<SetStateAction<number>>;
  readonly turns: number;
  readonly setTurns: Dispatch<SetStateAction<number>>;
  readonly cursors: readonly [number, number] | null;
  readonly setCursors: Dispatch<SetStateAction<readonly [number, number] | null>>;
}

/** The position and width of the close-up. */
function CloseUpRange({ at, setAt, turns, setTurns, cursors, setCursors }: CloseUpRangeProps) {
  return (
    <div className="no-print flex flex-wrap gap-x-4 text-base text-soft">
      <Slider label="where" value={at} step={0.001} onChange={setAt} />
      <label className="flex min-h-11 items-center gap-2">
        turns
        <input
          type="range"
          min={1}
          max={60}
          value={turns}
          onChange={(event) => setTurns(Number(event.target.value))}
        />
        <span className="figures">{turns}</span>
      </label>
      <button
        type="button"
        className="min-h-11 underline"
        aria-pressed={cursors !== null}
        onClick={() => setCursors(cursors ? null : [0.25, 0.25 + Math.min(0.7, 1 / turns)])}
      >
        {cursors ? "cursors off" : "cursors"}
      </button>
    </div>
  );
}

interface CursorsProps {
  readonly cursors: readonly [number, number];
  readonly setCursors: Dispatch<SetStateAction<readonly [number, number] | null>>;
  readonly a: { time: number; value: number };
  readonly b: { time: number; value: number };
  readonly apart: number;
}

/** Two cursors and the difference between them. */
function Cursors({ cursors, setCursors, a, b, apart }: CursorsProps) {
  return (
    <div className="text-base">
      <div className="no-print flex flex-wrap gap-x-4 text-soft">
        <Slider label="A" value={cursors[0]} step={0.002} onChange={(own) => setCursors([own, cursors[1]])} />
        <Slider label="B" value={cursors[1]} step={0.002} onChange={(own) => setCursors([cursors[0], own])} />
      </div>
      <p className="figures" data-testid="cursors">
        A {amps(a.value)} · B {amps(b.value)} · between cursors {seconds(apart)}
        {apart > 0 && `, ${hertz(1 / apart)}, ${rpm(60 / apart)} if that is one turn`},{" "}
        {amps(Math.abs(b.value - a.value))}
      </p>
    </div>
  );
}

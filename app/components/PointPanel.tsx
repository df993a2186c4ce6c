import type { Circuit } from "@core/circuit/circuit";
import { voltsText } from "@core/units/wording";
import { X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { SheetState } from "../drawing/sheetState";
import { whereAt } from "../format/lookWords";

interface PointPanelProps {
  readonly circuit: Circuit;
  /** The point that was tapped. */
  readonly point: string;
  readonly setting: string;
  readonly keyOn: boolean;
  /** The sheet's states of this set-up, healthy first, with what each takes as true. */
  readonly states: readonly { readonly title: string; readonly state: SheetState }[];
  readonly fullVolts: number;
  readonly token: string;
  /** True to clip the light the other way round. */
  readonly flipped: boolean;
  readonly onFlip: () => void;
  readonly onClose: () => void;
}

const words = ["bright", "dim", "dark", "flickers"] as const;

/** A point under the probe: what it should read, what each leading suspect would make it read, and what it did. */
export function PointPanel(props: PointPanelProps) {
  const { circuit, point, setting, keyOn, states, fullVolts, token, flipped, onFlip, onClose } = props;
  const fetcher = useFetcher<{ problem?: string }>({ key: "reading" });
  const [typed, setTyped] = useState("");
  const panel = useRef<HTMLElement>(null);
  // On a phone the panel opens above the sheet that was tapped.
  useEffect(() => {
    panel.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id ?? "";
  const healthy = states[0]?.state.point.volts[point];
  // Feed is looked for from ground, and ground from the feed.
  const fed = typeof healthy === "number" && healthy > fullVolts / 2;
  const onFeed = fed === flipped;
  const clip = `${battery}.${onFeed ? "+" : "-"}`;
  const setup = { key: keyOn ? "run" : "off", setting };
  const entry = (test: "light" | "volts") => (
    <>
      <input type="hidden" name="intent" value="own-reading" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="test" value={test} />
      <input type="hidden" name="first" value={point} />
      <input type="hidden" name="second" value={test === "light" ? clip : `${battery}.-`} />
      <input type="hidden" name="key" value={setup.key} />
      <input type="hidden" name="setting" value={setting} />
    </>
  );
  return (
    <section ref={panel} aria-labelledby="point" className="sheet-card grid gap-2 p-3">
      <div className="flex items-start justify-between gap-3">
        <div>
          <h2 id="point" className="font-bold">
            <code className="figures rounded bg-[var(--mark)] px-1">{point}</code>
          </h2>
          <p className="text-base text-soft">
            {whereAt(circuit, point).slice(point.length + 2)}; key {keyOn ? "run" : "out"}, {setting}
          </p>
        </div>
        <button type="button" className="btn min-h-11 px-2" onClick={onClose} aria-label="Take the probe off">
          <X aria-hidden="true" className="size-5" />
        </button>
      </div>
      <dl className="grid grid-cols-[1fr_auto] gap-x-4 text-base">
        {states.map(({ title, state }) => {
          const volts = state.point.volts[point];
          return (
            <div key={title} className="contents">
              <dt className="text-soft">{title}</dt>
              <dd className="figures text-right whitespace-nowrap">
                {typeof volts === "number" ? voltsText(volts) : "floats"}
              </dd>
            </div>
          );
        })}
      </dl>
      <fetcher.Form method="post" className="flex flex-wrap items-center gap-1.5">
        {entry("light")}
        <button type="button" className="btn min-h-11 px-2 text-base" onClick={onFlip}>
          <kbd className="key-hint">F</kbd> light on <b>{onFeed ? "feed" : "ground"}</b>
        </button>
        {words.map((word) => (
          <button key={word} type="submit" name="result" value={word} className="btn min-h-11 px-3 text-base">
            {word}
          </button>
        ))}
      </fetcher.Form>
      <fetcher.Form method="post" className="flex flex-wrap items-center gap-2">
        {entry("volts")}
        <label htmlFor="point-volts" className="text-base">
          Volts to ground
        </label>
        <input
          id="point-volts"
          name="result"
          inputMode="decimal"
          autoComplete="off"
          required
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          className="field figures w-24 text-right"
        />
        <span>V</span>
        <button type="submit" className="btn min-h-11 px-3 text-base">
          Save
        </button>
      </fetcher.Form>
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger">
          {fetcher.data.problem}
        </p>
      )}
    </section>
  );
}

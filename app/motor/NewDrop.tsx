import { useState } from "react";
import { useFetcher } from "react-router";
import type { MotorPageData } from "../routes/motor";

/** A drop of one's own: two points, the speed, the volts; it is a reading like any other. */
export function NewDrop({ page }: { page: MotorPageData }) {
  const fetcher = useFetcher<{ problem?: string }>();
  const [red, setRed] = useState("");
  const [black, setBlack] = useState("");
  const [setting, setSetting] = useState(page.settings.at(-1) ?? "");
  const reading = JSON.stringify({
    test: "volts",
    red,
    black,
    key: "run",
    setting,
    ...(page.engine ? { engine: true } : {}),
  });
  const point = (label: string, value: string, set: (value: string) => void) => (
    <label className="grid text-base text-soft">
      {label}
      <input
        className="field figures w-32 text-ink"
        list="drop-points"
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  return (
    <fetcher.Form method="post" className="mt-2 flex flex-wrap items-end gap-2">
      <datalist id="drop-points">
        {page.points.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <input type="hidden" name="intent" value="reading" />
      <input type="hidden" name="token" value={`${page.token}-drop`} />
      <input type="hidden" name="reading" value={reading} />
      {point("red lead", red, setRed)}
      {point("black lead", black, setBlack)}
      <label className="grid text-base text-soft">
        speed
        <select
          className="field text-ink"
          value={setting}
          onChange={(event) => setSetting(event.target.value)}
        >
          {page.settings.map((own) => (
            <option key={own}>{own}</option>
          ))}
        </select>
      </label>
      <label className="grid text-base text-soft">
        volts
        <input className="field figures w-24 text-ink" name="figure" inputMode="decimal" autoComplete="off" />
      </label>
      <button className="btn" type="submit">
        Save drop
      </button>
      {fetcher.data?.problem && (
        <p role="alert" className="w-full text-danger">
          {fetcher.data.problem}
        </p>
      )}
    </fetcher.Form>
  );
}

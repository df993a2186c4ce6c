import { useState } from "react";
import { useFetcher } from "react-router";
import { SmallField } from "../ui/SmallField";
import type { MotorPageData } from "./motorPageView.server";
import { SpeedChoice } from "./SpeedChoice";

/** A voltage drop to enter: two points, the speed, the volts; it is a reading like any other. */
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
      <SmallField label="red lead" list="drop-points" value={red} onChange={setRed} />
      <SmallField label="black lead" list="drop-points" value={black} onChange={setBlack} />
      <SpeedChoice label="speed" settings={page.settings} value={setting} onChange={setSetting} />
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

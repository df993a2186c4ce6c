import type { ConditionFit, CurrentDrawInSetup, MotorCondition } from "@core/predict/currentDraw";
import { Link, useFetcher } from "react-router";
import { CurrentDrawPicture } from "./CurrentDrawPicture";
import { FanPicture } from "./FanPicture";
import { amps, percentOf, watts } from "./figureText";
import type { MotorPageData } from "./motorPageView.server";
import { NewDrop } from "./NewDrop";

const conditionWords: Readonly<Record<MotorCondition, string>> = {
  healthy: "a healthy motor",
  tight: "a tight motor",
  "shorted-turns": "a shorted winding",
  "worn-brushes": "worn brushes",
  "filter-blocked": "a blocked filter or duct",
};

const sizeWords = ({ condition, size }: ConditionFit): string => {
  if (size === null) return "";
  switch (condition) {
    case "tight":
      return `draws ${size} times its rated current at rated volts`;
    case "shorted-turns":
      return `${percentOf(size)} of the winding still working`;
    case "worn-brushes":
      return `${size} Ω extra resistance at the brushes`;
    default:
      return `${percentOf(size)} of the fan's load remaining`;
  }
};

const advice: Readonly<Record<MotorCondition, string>> = {
  healthy: "The motor is not what overheats the parts in its circuit.",
  tight:
    "Turn the wheel by hand with the key off. If it stays in, it burns out the pack, the pins and the fuse.",
  "shorted-turns": "It draws too much current and runs hot. It will also burn out the pack and the fuse.",
  "worn-brushes": "Check its current ripple with a clamp meter and a scope. It will soon stop for good.",
  "filter-blocked":
    "With less air the fan does less work, so the motor turns faster and draws less current. Check the filter before you buy a motor.",
};

/** A current this far outside the healthy band is reported. */
function drawWord({ measuredAmps, healthyAmps }: CurrentDrawInSetup): string {
  if (measuredAmps === null) return "";
  if (measuredAmps < 0.5 && healthyAmps.low > 0.5) return "no current";
  if (measuredAmps > healthyAmps.high * 1.03 + 0.3) return "too much";
  if (measuredAmps < healthyAmps.low * 0.97 - 0.3) return "too little";
  return "as expected";
}

/**
 * Amps for each speed compared with the circuit's own prediction, the conditions that fit, and the effect on the parts
 * in the path.
 */
export function CurrentDrawView({ page }: { page: MotorPageData }) {
  const { draw: sample, drops, engine } = page;
  const rows = sample.setups.filter(({ setup }) => (setup.engine ?? false) === engine);
  const [best, second] = sample.fits;
  const close = best && second && second.odds > 0.25;
  return (
    <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <MeasuredDraw page={page} engine={engine} rows={rows} />
      <div className="grid min-w-0 gap-4">
        {page.motor.assumed ? (
          <NotKnown />
        ) : (
          <>
            <WhatFits best={best} close={close} second={second} sample={sample} />
            <HotParts rows={rows} />
          </>
        )}
        <LoadedDrops drops={drops} page={page} />
      </div>
    </div>
  );
}

function SpeedRow({ page, row }: { page: MotorPageData; row: CurrentDrawInSetup }) {
  const fetcher = useFetcher<{ problem?: string }>();
  const { setup, healthyAmps, measuredAmps } = row;
  const word = drawWord(row);
  const test = {
    test: "amps",
    around: page.motor.id,
    key: "run",
    setting: setup.setting,
    ...(setup.engine ? { engine: true } : {}),
  };
  return (
    <tr className="border-t border-rule" data-speed={setup.setting}>
      <th scope="row" className="text-left">
        {setup.setting}
      </th>
      <td className="figures">
        {amps(healthyAmps.usual)}{" "}
        <span className="text-soft max-md:hidden">
          ({healthyAmps.low.toFixed(1)} to {healthyAmps.high.toFixed(1)})
        </span>
      </td>
      <td className="py-1">
        <fetcher.Form method="post" className="flex items-center gap-1">
          <input type="hidden" name="intent" value="reading" />
          <input type="hidden" name="token" value={`${page.token}-${setup.setting}`} />
          <input type="hidden" name="reading" value={JSON.stringify(test)} />
          <input
            key={measuredAmps}
            name="figure"
            inputMode="decimal"
            autoComplete="off"
            className="field figures w-24"
            aria-label={`Amps on speed ${setup.setting}`}
            defaultValue={measuredAmps === null ? "" : measuredAmps}
          />
          <button className="btn px-2" type="submit" aria-label={`Save amps on speed ${setup.setting}`}>
            save
          </button>
        </fetcher.Form>
        {fetcher.data?.problem && (
          <p role="alert" className="text-danger">
            {fetcher.data.problem}
          </p>
        )}
      </td>
      <td className={`max-md:hidden ${word === "too much" || word === "no current" ? "text-danger" : ""}`}>
        {page.motor.assumed ? "" : word}
      </td>
    </tr>
  );
}

/** Heat, as a multiple of the most a healthy motor makes there, that burns out the part (judgement, no source). */
const cooks = 1.6;

function HotParts({ rows }: { rows: readonly CurrentDrawInSetup[] }) {
  const measured = rows.filter(({ measuredAmps }) => measuredAmps !== null);
  const hot = new Map<string, { watts: number; hottest: number; setting: string }>();
  for (const { setup, warm } of measured)
    for (const { id, watts: own, hottestWatts } of warm)
      if (own > (hot.get(id)?.watts ?? 0))
        hot.set(id, { watts: own, hottest: hottestWatts, setting: setup.setting ?? "" });
  const lines = [...hot]
    .filter(([, { watts: own }]) => own > 0.3)
    .sort(
      ([, a], [, b]) =>
        b.watts / Math.max(0.3, b.hottest) - a.watts / Math.max(0.3, a.hottest) || b.watts - a.watts,
    )
    .slice(0, 8);
  return (
    <section aria-labelledby="hot" className="sheet-card p-3">
      <h2 id="hot" className="font-bold">
        Heat in the parts of this circuit
      </h2>
      {lines.length === 0 ? (
        <p className="text-base text-soft">
          Clamp a speed to see the heat in each coil of the pack and in each pin, compared with the most a
          healthy motor causes there.
        </p>
      ) : (
        <table className="mt-1 w-full text-base">
          <thead>
            <tr className="text-left text-soft">
              <th className="font-normal">part</th>
              <th className="font-normal">highest heat</th>
              <th className="font-normal">healthy, highest</th>
              <th className="font-normal">times</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(([id, { watts: own, hottest, setting }]) => {
              const times = own / Math.max(1e-6, hottest);
              return (
                <tr key={id} className="border-t border-rule">
                  <th scope="row" className="pr-2 text-left">
                    {id}
                  </th>
                  <td className="figures">
                    {watts(own)} <span className="text-soft">on {setting}</span>
                  </td>
                  <td className="figures">{watts(hottest)}</td>
                  <td className={`figures ${times > cooks ? "font-bold text-danger" : ""}`}>
                    {times.toFixed(1)}
                    {times > cooks ? " overheats" : ""}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}

interface MeasuredDrawProps {
  readonly page: MotorPageData;
  readonly engine: MotorPageData["engine"];
  readonly rows: CurrentDrawInSetup[];
}

/** The current by setting, measured and expected. */
function MeasuredDraw({ page, engine, rows }: MeasuredDrawProps) {
  return (
    <div className="grid min-w-0 gap-4">
      <section aria-labelledby="draw" className="sheet-card p-3">
        <div className="flex flex-wrap items-baseline justify-between gap-2">
          <h2 id="draw" className="font-bold">
            Clamp meter on {page.motor.id}, speed by speed
          </h2>
          <Link
            className="min-h-11 text-base underline"
            to={`?view=draw&motor=${page.motor.id}${engine ? "" : "&engine=on"}`}
            preventScrollReset
          >
            {engine ? "engine running" : "engine off"}: {engine ? "delete" : "run the engine"}
          </Link>
        </div>
        <table className="mt-1 w-full text-base">
          <thead>
            <tr className="text-left text-soft">
              <th className="pr-2 font-normal">speed</th>
              <th className="font-normal">{page.motor.assumed ? "usual blower" : "healthy"}</th>
              <th className="font-normal">measured</th>
              <th className="font-normal max-md:hidden">{page.motor.assumed ? "" : "result"}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <SpeedRow key={row.setup.setting} page={page} row={row} />
            ))}
          </tbody>
        </table>
      </section>
      <CurrentDrawPicture page={page} rows={rows} />
      <FanPicture page={page} />
    </div>
  );
}

/** Instead of a judgement, where nobody has seen what the motor should draw. */
const NotKnown = () => (
  <section aria-labelledby="fits" className="tag-card">
    <div className="tag-face">
      <h2 id="fits" className="pr-6 text-base text-soft">
        What fits this current
      </h2>
      <p className="mt-1 pr-6">
        Nobody has seen what this motor should draw, so its current is not judged. The figures beside yours
        are those of a usual blower. To have yours judged, enter the motor’s values from its plate or diagram
        in the circuit.
      </p>
    </div>
  </section>
);

interface WhatFitsProps {
  readonly best: ConditionFit | undefined;
  readonly close: boolean | undefined;
  readonly second: ConditionFit | undefined;
  readonly sample: MotorPageData["draw"];
}

/** Which condition fits the measured current best. */
function WhatFits({ best, close, second, sample }: WhatFitsProps) {
  return (
    <section aria-labelledby="fits" className="tag-card">
      <div className="tag-face">
        <h2 id="fits" className="pr-6 text-base text-soft">
          What fits this current
        </h2>
        {!best && (
          <p className="mt-1">
            Clamp at least one speed. Airway compares it with what a healthy motor draws in this circuit.
          </p>
        )}
        {best && (
          <>
            <p className="mt-1 pr-6 text-xl font-bold">
              {close && second
                ? `${conditionWords[best.condition]}, or ${conditionWords[second.condition]}`
                : conditionWords[best.condition]}
            </p>
            <p className="text-base">{advice[best.condition]}</p>
            {close && second && best.condition !== "healthy" && (
              <p className="text-base">{advice[second.condition]}</p>
            )}
            <ul className="mt-2 grid gap-1 text-base">
              {sample.fits.map((fit) => (
                <li key={fit.condition}>
                  <span className="flex justify-between gap-2">
                    <span>
                      {conditionWords[fit.condition]}
                      {fit.odds > 0.02 && fit.size !== null && (
                        <span className="text-soft"> ({sizeWords(fit)})</span>
                      )}
                    </span>
                    <span className="figures shrink-0">{percentOf(fit.odds)}</span>
                  </span>
                  <span className="doubt-bar block" style={{ width: `${Math.max(0.5, 100 * fit.odds)}%` }} />
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </section>
  );
}

interface LoadedDropsProps {
  readonly drops: MotorPageData["drops"];
  readonly page: MotorPageData;
}

/** Volts dropped under load, by joint. */
function LoadedDrops({ drops, page }: LoadedDropsProps) {
  return (
    <section aria-labelledby="drops" className="sheet-card p-3">
      <h2 id="drops" className="font-bold">
        Drops under load
      </h2>
      <p className="text-base text-soft">
        Usual limits: 0.1 V per joint, 0.2 V per wire, 0.3 V per switch, 0.5 V for a whole side.
      </p>
      {drops.length > 0 && (
        <ul className="mt-1 text-base">
          {drops.map(({ id, red, black, setting, drop }) => {
            const over = Math.abs(drop.volts) > drop.limitVolts;
            const air = drop.airflow[page.motor.id] ?? 1;
            return (
              <li key={id} className="border-t border-rule py-1">
                <b>
                  {red} to {black}
                </b>
                , speed {setting}: <span className="figures">{Math.abs(drop.volts).toFixed(2)} V</span> over a{" "}
                {drop.over === "side" ? "whole side" : drop.over}{" "}
                {over ? (
                  <span className="text-danger">
                    (over the {drop.limitVolts} V it may have): {(1000 * drop.addedOhms).toFixed(0)} mΩ extra
                    resistance, {watts(drop.watts)} of heat, {percentOf(Math.max(0, 1 - air))} less air
                  </span>
                ) : (
                  <span>within the limit of {drop.limitVolts} V</span>
                )}
              </li>
            );
          })}
        </ul>
      )}
      <NewDrop page={page} />
    </section>
  );
}

import type { PartInCircuit } from "@core/match/newPart";
import { ampsText } from "@core/units/wording";

/** The circuit solved with the new part: every speed, every fuse, every coil. */
export function SpeedsWithPart({ found }: { found: PartInCircuit }) {
  const widest = Math.max(1.25, ...found.speeds.map(({ airflow }) => airflow));
  return (
    <section aria-labelledby="in-circuit" className="sheet-card p-3 text-base">
      <h2 id="in-circuit" className="font-bold">
        In this circuit, engine running
      </h2>
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-left text-soft">
            <th className="pr-3 font-normal">speed</th>
            <th className="font-normal">air, compared with before</th>
            <th className="font-normal">current draw (before)</th>
          </tr>
        </thead>
        <tbody>
          {found.speeds.map(({ setting, airflow, amps, wasAmps }) => (
            <tr key={setting} className="border-t border-rule">
              <td className="figures">{setting}</td>
              <td className="w-2/5 pr-4">
                <span className="figures">{Math.round(airflow * 100)} %</span>
                <span aria-hidden="true" className="relative block h-2 bg-bench">
                  <span
                    className="absolute inset-y-0 left-0 bg-ground"
                    style={{ width: `${(airflow / widest) * 100}%` }}
                  />
                  <span className="absolute inset-y-0 w-0.5 bg-feed" style={{ left: `${100 / widest}%` }} />
                </span>
              </td>
              <td className="figures whitespace-nowrap">
                {ampsText(amps)} <span className="text-soft">({ampsText(wasAmps)})</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-2">
        {found.fuses.map(({ id, amps, ratedAmps }) => (
          <li key={id}>
            {id}: {ampsText(amps)} at most through {ratedAmps} A
          </li>
        ))}
        {found.coils.map(({ id, watts, wasWatts }) => (
          <li key={id}>
            {id}: {watts.toFixed(0)} W at most, before {wasWatts.toFixed(0)} W
          </li>
        ))}
      </ul>
    </section>
  );
}

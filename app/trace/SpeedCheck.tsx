import { ampsText, percent, voltsText } from "@core/units/wording";
import type { TracedDraft } from "./tracedDraft.server";

/** The motor's volts and speed of a healthy vehicle at each setting, to show whether they are sensible. */
export function SpeedCheck({ motors }: Pick<TracedDraft, "motors">) {
  return motors.map(({ motor, speeds }) => (
    <section key={motor} className="sheet-card py-2" aria-label={`What ${motor} would get`}>
      <h2 className="px-3 pb-1 text-base font-semibold">
        What a healthy {motor} would get. Are these values plausible?
      </h2>
      <table className="w-full text-base" data-speeds={motor}>
        <thead>
          <tr className="text-soft">
            <th scope="col" className="pl-3 text-left font-normal">
              Speed
            </th>
            <th scope="col" className="text-right font-normal">
              Volts
            </th>
            <th scope="col" className="text-right font-normal">
              Draw
            </th>
            <th scope="col" className="w-36 pr-3 text-right font-normal">
              Share of top rpm
            </th>
          </tr>
        </thead>
        <tbody className="figures">
          {speeds.map(({ setting, volts, amps, share }) => (
            <tr key={setting} className="border-t border-rule">
              <th scope="row" className="pl-3 text-left font-normal">
                {setting}
              </th>
              <td className="text-right whitespace-nowrap">{volts === null ? "none" : voltsText(volts)}</td>
              <td className="text-right whitespace-nowrap">{ampsText(amps)}</td>
              <td className="pr-3 text-right whitespace-nowrap">{percent(share)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  ));
}

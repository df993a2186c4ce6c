import { ampsText } from "@core/units/wording";
import type { PartsData } from "./partsView.server";

/** Which lead is joined to which wire, the current there, and the joint to use. */
export function LeadTable({ leads, plug }: { leads: NonNullable<PartsData["leads"]>; plug: string }) {
  return (
    <section aria-labelledby="leads" className="sheet-card p-3 text-base">
      <h2 id="leads" className="font-bold">
        Splice for {plug}, wire by wire
      </h2>
      {leads.refusals.map((words) => (
        <p key={words} role="alert" className="mt-1 border-l-4 border-danger pl-2 font-semibold">
          Do not splice: {words}.
        </p>
      ))}
      <ul className="mt-1">
        {leads.joints.map((joint) => (
          <li key={joint.pin} data-pin={joint.pin} className="border-t border-rule py-1">
            <span className="figures">
              pin {joint.pin}: {joint.lead.colour} {joint.lead.mm2} mm² → {joint.wire.id} {joint.wire.colour}{" "}
              {joint.wire.mm2} mm²
            </span>
            <span className="block text-soft">
              to {joint.terminal}; {ampsText(joint.amps)} at most, in this wire{" "}
              {joint.leadStandsAmps.toFixed(0)} A; {joint.crimp}
            </span>
            {joint.warnings.map((words) => (
              <span key={words} className="block border-l-4 border-feed pl-2">
                {words}
              </span>
            ))}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-soft">
        Disconnect the battery negative first. Stagger the joints, tug each one and seal it. Try every speed
        before the tape goes on.
      </p>
    </section>
  );
}

import type { RepairData } from "./repairView.server";

/** The tray: screws removed, screws refitted, and its warnings. */
export function TrayCard({ tray }: { tray: RepairData["tray"] }) {
  const calm = tray.calls.length === 0;
  return (
    <section className="tag-card" aria-labelledby="tray">
      <div className="tag-face">
        <h2 id="tray" className="pr-8 font-bold">
          Tray:{" "}
          <span className="figures" data-testid="tray">
            {tray.lying}
          </span>{" "}
          {tray.lying === 1 ? "screw" : "screws"} in it
        </h2>
        <p className="text-base text-soft">
          <span className="figures">{tray.out}</span> out, <span className="figures">{tray.back}</span> back
        </p>
        {tray.lying > 0 && (
          <p aria-hidden="true" className="mt-1 flex max-w-full flex-wrap gap-1">
            {Array.from({ length: Math.min(60, tray.lying) }, (_, place) => (
              <span key={place} className="inline-block size-2.5 rounded-full border-2 border-ink bg-bench" />
            ))}
          </p>
        )}
        {tray.calls.map(({ step, kind, words }) => (
          <p
            key={`${step} ${kind}`}
            className={`mt-2 border-l-4 pl-2 text-base ${kind === "not-as-planned" ? "border-feed" : "border-danger font-semibold"}`}
          >
            {words}
          </p>
        ))}
        {calm && tray.out > 0 && tray.lying === 0 && (
          <p className="mt-2 text-base font-semibold">All screws are accounted for.</p>
        )}
      </div>
    </section>
  );
}

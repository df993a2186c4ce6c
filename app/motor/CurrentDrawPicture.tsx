import type { CurrentDrawInSetup } from "@core/predict/currentDraw";
import { Picture } from "../ui/Picture";
import type { MotorPageData } from "./motorPageView.server";

/** Amps by speed: the band of healthy vehicles, what was clamped, and what the likeliest ailment would draw. */
export function CurrentDrawPicture({
  page,
  rows,
}: {
  page: MotorPageData;
  rows: readonly CurrentDrawInSetup[];
}) {
  const labels = rows.map(({ setup }) => setup.setting ?? "");
  const measured = rows.map(({ measuredAmps }) => measuredAmps);
  const words = rows
    .map(
      ({ setup, healthyAmps, measuredAmps }) =>
        `speed ${setup.setting}: healthy ${healthyAmps.usual.toFixed(1)} A${measuredAmps === null ? "" : `, clamped ${measuredAmps} A`}`,
    )
    .join("; ");
  return (
    <Picture
      title="Draw by speed"
      words={words}
      file={`job-${page.id}-draw`}
      of={JSON.stringify([labels, measured, page.draw.fits])}
      configure={(colours) => ({
        type: "line",
        data: {
          labels,
          datasets: [
            {
              label: "healthy, at most",
              data: rows.map((row) => row.healthyAmps.high),
              borderColor: colours.good,
              borderWidth: 1,
              pointRadius: 0,
              fill: "+1",
              backgroundColor: `color-mix(in srgb, ${colours.good} 22%, transparent)`,
            },
            {
              label: "healthy, at least",
              data: rows.map((row) => row.healthyAmps.low),
              borderColor: colours.good,
              borderWidth: 1,
              pointRadius: 0,
            },
            {
              label: "clamped",
              data: measured,
              borderColor: colours.ink,
              backgroundColor: colours.feed,
              borderWidth: 2,
              pointRadius: 7,
              pointStyle: "rectRot",
              spanGaps: true,
            },
          ],
        },
        options: {
          scales: {
            x: { title: { display: true, text: "speed" } },
            y: { beginAtZero: true, title: { display: true, text: "amps" } },
          },
          plugins: { legend: { position: "bottom" } },
        },
      })}
    />
  );
}

import type { CurrentDrawInSetup } from "@core/predict/currentDraw";
import type { Colours } from "../ui/chart";
import { Picture } from "../ui/Picture";
import type { MotorPageData } from "./motorPageView.server";

const rowWords = ({ setup, healthyAmps, measuredAmps }: CurrentDrawInSetup): string =>
  `speed ${setup.setting}: healthy ${healthyAmps.usual.toFixed(1)} A${measuredAmps === null ? "" : `, clamped ${measuredAmps} A`}`;

/** One edge of the healthy vehicles' band. */
const healthyEdge = (label: string, data: number[], colours: Colours) => ({
  label,
  data,
  borderColor: colours.good,
  borderWidth: 1,
  pointRadius: 0,
});

/**
 * Amps by speed: the band of healthy vehicles, the clamp readings, and the current the likeliest condition would draw.
 */
export function CurrentDrawPicture({
  page,
  rows,
}: {
  page: MotorPageData;
  rows: readonly CurrentDrawInSetup[];
}) {
  const labels = rows.map(({ setup }) => setup.setting ?? "");
  const measured = rows.map(({ measuredAmps }) => measuredAmps);
  const words = rows.map(rowWords).join("; ");
  return (
    <Picture
      title="Current draw by speed"
      words={words}
      file={`job-${page.id}-draw`}
      of={JSON.stringify([labels, measured, page.draw.fits])}
      configure={(colours) => ({
        type: "line",
        data: {
          labels,
          datasets: [
            {
              ...healthyEdge(
                "healthy, highest",
                rows.map((row) => row.healthyAmps.high),
                colours,
              ),
              fill: "+1",
              backgroundColor: `color-mix(in srgb, ${colours.good} 22%, transparent)`,
            },
            healthyEdge(
              "healthy, lowest",
              rows.map((row) => row.healthyAmps.low),
              colours,
            ),
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

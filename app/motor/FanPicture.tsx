import { Picture } from "../ui/Picture";
import type { MotorPageData } from "./motorPageView.server";

/** The fan's own curve: with less air let through, it does less work and draws less current. */
export function FanPicture({ page }: { page: MotorPageData }) {
  const { fanCurve } = page.draw;
  if (fanCurve.length === 0) return null;
  const [open, shut] = [fanCurve[0], fanCurve.at(-1)];
  return (
    <Picture
      title="Fan on top speed as the duct is closed"
      words={`With the duct open the motor draws ${open?.amps.toFixed(1)} A at ${Math.round(open?.rpm ?? 0)} rpm, with it nearly shut ${shut?.amps.toFixed(1)} A at ${Math.round(shut?.rpm ?? 0)} rpm.`}
      file={`job-${page.id}-fan`}
      of={JSON.stringify(fanCurve)}
      height={220}
      configure={(colours) => ({
        type: "line",
        data: {
          labels: fanCurve.map(({ airShare }) => Math.round(100 * airShare)),
          datasets: [
            {
              label: "current draw, A",
              data: fanCurve.map(({ amps }) => amps),
              borderColor: colours.feed,
              backgroundColor: colours.feed,
              yAxisID: "y",
              pointStyle: "circle",
            },
            {
              label: "shaft power, tens of W",
              data: fanCurve.map(({ shaftWatts }) => shaftWatts / 10),
              borderColor: colours.ground,
              backgroundColor: colours.ground,
              yAxisID: "y",
              borderDash: [6, 4],
              pointStyle: "rect",
            },
            {
              label: "rpm",
              data: fanCurve.map(({ rpm }) => rpm),
              borderColor: colours.doubt,
              backgroundColor: colours.doubt,
              yAxisID: "turning",
              borderDash: [2, 3],
              pointStyle: "triangle",
            },
          ],
        },
        options: {
          scales: {
            x: {
              reverse: true,
              title: { display: true, text: "% of full airflow (a blocked duct lowers the current draw)" },
            },
            y: { beginAtZero: true, title: { display: true, text: "A, 10 W" } },
            turning: { position: "right", title: { display: true, text: "rpm" }, grid: { display: false } },
          },
          plugins: { legend: { position: "bottom", labels: { usePointStyle: true } } },
        },
      })}
    />
  );
}

import { percent } from "@core/units/wording";
import { Picture } from "../ui/Picture";
import type { Progress } from "./progress.server";

interface CalibrationPictureProps {
  readonly said: number;
  readonly calibration: NonNullable<Progress["calibration"]>;
  readonly learner: string;
}

/** The Brier score of the stated odds over time, and its components. */
export function CalibrationPicture({ said, calibration, learner }: CalibrationPictureProps) {
  const { score, reliability, resolution, overTime, bins } = calibration;
  return (
    <>
      <Picture
        title="How well your odds held, last ten purchases (Brier score)"
        words={`After each purchase: ${overTime.map((own) => own.toFixed(2)).join(", ")}. 0 is perfect; 0.25 is what tossing a coin scores.`}
        file="practice-odds"
        of={JSON.stringify([learner, overTime])}
        height={190}
        marks={[{ label: "coin toss", y: 0.25 }]}
        configure={(colours) => ({
          type: "line",
          data: {
            labels: overTime.map((_, index) => index + 1),
            datasets: [
              {
                data: [...overTime],
                borderColor: colours.ground,
                backgroundColor: colours.ground,
                pointRadius: 3.5,
                borderWidth: 2.5,
              },
            ],
          },
          options: {
            scales: {
              x: { title: { display: true, text: "purchases" } },
              y: { min: 0, suggestedMax: 0.4, title: { display: true, text: "Brier score" } },
            },
            plugins: { legend: { display: false } },
          },
        })}
      />
      <p className="text-base">
        <b className="figures">{score.toFixed(3)}</b> over {said} {said === 1 ? "purchase" : "purchases"}:
        calibration error <span className="figures">{reliability.toFixed(3)}</span>, discrimination{" "}
        <span className="figures">{resolution.toFixed(3)}</span> (Murphy's decomposition).{" "}
        {bins.map(({ from, to, hits, trials }) => (
          <span key={from} className="block text-soft">
            When you said {percent(from)} to {percent(to)}, you were right {hits} of {trials} times
          </span>
        ))}
      </p>
    </>
  );
}

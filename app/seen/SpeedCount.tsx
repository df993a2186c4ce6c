import { mostSpeeds } from "./seenCarForm";

interface SpeedCountProps {
  readonly speeds: number | undefined;
  readonly onCount?: (speeds: number) => void;
}

/** How many speeds the blower has besides off. */
export const SpeedCount = ({ speeds, onCount }: SpeedCountProps) => (
  <fieldset>
    <legend className="font-semibold">How many speeds besides off</legend>
    <div className="mt-1 grid max-w-xl grid-cols-8 gap-1.5">
      {Array.from({ length: mostSpeeds }, (_, at) => at + 1).map((own) => (
        <label
          key={own}
          className="figures flex h-11 cursor-pointer items-center justify-center rounded-card border-[1.5px] border-[var(--edge)] bg-card has-checked:border-ink has-checked:bg-mark has-checked:font-bold has-focus-visible:outline-2"
        >
          <input
            type="radio"
            name="speeds"
            value={own}
            defaultChecked={speeds === own}
            onChange={() => onCount?.(own)}
            className="sr-only"
          />
          {own}
        </label>
      ))}
    </div>
  </fieldset>
);

import { type PracticeLevel, practiceKinds, practiceLevels } from "@core/practice/practiceCase";
import { kindWords, levelWords } from "@words/practiceWords";

interface LevelAndKindProps {
  readonly level: PracticeLevel;
  /** Whether any kind is allowed. */
  readonly any: boolean;
}

/** Chooses the difficulty of a case and its kind of fault. */
export const LevelAndKind = ({ level, any }: LevelAndKindProps) => (
  <div className="grid grid-cols-[minmax(0,1fr)] gap-3 sm:grid-cols-2">
    <label className="grid min-w-0 gap-0.5 text-base text-soft">
      Difficulty
      <select name="level" defaultValue={level} className="field w-full text-ink">
        {practiceLevels.map((own) => (
          <option key={own} value={own}>
            {levelWords[own]}
          </option>
        ))}
      </select>
    </label>
    <label className="grid min-w-0 gap-0.5 text-base text-soft">
      Kind of fault
      <select name="kind" className="field w-full text-ink">
        {(any ? (["any", ...practiceKinds] as const) : practiceKinds).map((own) => (
          <option key={own} value={own}>
            {kindWords[own]}
          </option>
        ))}
      </select>
    </label>
  </div>
);

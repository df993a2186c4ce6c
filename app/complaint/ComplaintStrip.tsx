import { airflowSeen } from "@core/predict/observations/airflowSeen";
import { airflowWords } from "@words/stateWords";
import { QueuedForm, usePending } from "../entries/QueuedForm";

export type AirflowWord = (typeof airflowSeen)[number];

export interface StripProps {
  readonly settings: readonly string[];
  readonly heard: Readonly<Record<string, AirflowWord>>;
  /** One token for each setting, so that the same tap sent twice is stored once. */
  readonly tokens: Readonly<Record<string, string>>;
}

/** One column per speed, one row per word: a tap says what that speed does, a second tap deletes it. */
export function ComplaintStrip({ settings, heard, tokens }: StripProps) {
  return (
    <table className="w-full table-fixed border-separate border-spacing-1">
      <caption className="sr-only">What each speed does</caption>
      <thead>
        <tr>
          <td className="w-[5.2rem] max-md:w-16" />
          {settings.map((setting) => (
            <th key={setting} scope="col" className="h-8 font-bold">
              {setting}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {airflowSeen.map((word) => (
          <tr key={word}>
            <th scope="row" className="pr-2 text-right text-base font-normal text-soft">
              {airflowWords[word]}
            </th>
            {settings.map((setting) => (
              <td key={setting} className="p-0">
                <StripCell
                  setting={setting}
                  word={word}
                  chosen={heard[setting] === word}
                  token={tokens[setting] ?? ""}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface CellProps {
  readonly setting: string;
  readonly word: AirflowWord;
  readonly chosen: boolean;
  readonly token: string;
}

function StripCell({ setting, word, chosen, token }: CellProps) {
  const pending = usePending({ intent: "heard", setting });
  const pressed = pending ? pending.seen === word : chosen;
  const waiting = pending !== null && (pending.seen === word || (pending.seen === "" && chosen));
  return (
    <QueuedForm words={({ seen }) => `speed ${setting}: ${seen ? airflowWords[word] : "deleted"}`}>
      <input type="hidden" name="intent" value="heard" />
      <input type="hidden" name="token" value={token} />
      <input type="hidden" name="setting" value={setting} />
      <button
        type="submit"
        name="seen"
        value={pressed ? "" : word}
        aria-pressed={pressed}
        aria-label={`${setting}: ${airflowWords[word]}`}
        aria-busy={waiting}
        className={`block h-12 w-full rounded-card border-[1.5px] ${pressed ? "border-ink bg-ink font-bold text-paper" : "border-[var(--edge)] bg-card text-soft"} ${waiting ? "border-dashed" : ""}`}
      >
        <span className="max-md:hidden">{pressed ? airflowWords[word] : ""}</span>
        <span aria-hidden="true" className="md:hidden">
          {pressed ? "●" : ""}
        </span>
      </button>
    </QueuedForm>
  );
}

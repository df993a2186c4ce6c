import { airflowSeen } from "@core/predict/observations/airflowSeen";
import { airflowWords } from "@words/stateWords";

type Seen = (typeof airflowSeen)[number];

/** What each speed does, by its number; `0` is off. */
export type Told = Readonly<Record<string, Seen>>;

/** The form field of a speed. */
export const toldField = (setting: string): string => `heard.${setting}`;

/** Complaints that are told in one breath. */
const usual: readonly {
  readonly words: string;
  readonly told: (settings: readonly string[]) => Told;
}[] = [
  {
    words: "Nothing on any speed",
    told: (settings) => Object.fromEntries(settings.slice(1).map((own) => [own, "none"])),
  },
  {
    words: "Only the top speed works",
    told: (settings) =>
      Object.fromEntries(
        settings.slice(1).map((own, at, all) => [own, at === all.length - 1 ? "normal" : "none"]),
      ),
  },
  {
    words: "Only the top speed is dead",
    told: (settings) =>
      Object.fromEntries(
        settings.slice(1).map((own, at, all) => [own, at === all.length - 1 ? "none" : "normal"]),
      ),
  },
  {
    words: "It never stops",
    told: (settings) => Object.fromEntries(settings.map((own) => [own, "strong"])),
  },
];

interface StartStripProps {
  readonly settings: readonly string[];
  readonly told: Told;
  readonly onTold: (told: Told) => void;
}

/** Takes the complaint when a job starts: a common one in one tap, or speed by speed. */
export function StartStrip({ settings, told, onTold }: StartStripProps) {
  return (
    <fieldset>
      <legend className="font-semibold">What each speed does</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {usual.map(({ words, told: all }) => (
          <button
            key={words}
            type="button"
            className="btn px-3 text-base"
            onClick={() => onTold(all(settings))}
          >
            {words}
          </button>
        ))}
      </div>
      <table className="mt-1 w-full max-w-xl table-fixed border-separate border-spacing-1">
        <caption className="sr-only">What each speed does</caption>
        <thead>
          <tr>
            <td className="w-[5.2rem] max-md:w-16" />
            {settings.map((setting) => (
              <th key={setting} scope="col" className="font-bold">
                {setting === "0" ? "off" : setting}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {airflowSeen.map((seen) => (
            <tr key={seen}>
              <th scope="row" className="pr-2 text-right text-base font-normal text-soft">
                {airflowWords[seen]}
              </th>
              {settings.map((setting) => {
                const isTold = told[setting] === seen;
                return (
                  <td key={setting} className="p-0">
                    <button
                      type="button"
                      aria-pressed={isTold}
                      aria-label={`${setting === "0" ? "off" : setting}: ${airflowWords[seen]}`}
                      className={`block h-11 w-full rounded-card border-[1.5px] ${isTold ? "border-ink bg-ink text-paper" : "border-[var(--edge)] bg-card"}`}
                      onClick={() => {
                        const others = Object.entries(told).filter(([own]) => own !== setting);
                        onTold(Object.fromEntries(isTold ? others : [...others, [setting, seen] as const]));
                      }}
                    >
                      <span aria-hidden="true">{isTold ? "●" : ""}</span>
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {Object.entries(told).map(([setting, seen]) => (
        <input key={setting} type="hidden" name={toldField(setting)} value={seen} />
      ))}
    </fieldset>
  );
}

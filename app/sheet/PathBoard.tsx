import { ampsText, percent } from "@core/units/wording";
import { memo } from "react";

/** A cell of the board that is shown on the sheet. */
export interface LitCell {
  readonly id: string;
  readonly part: string;
  readonly setting: string;
}

export interface PathBoardProps {
  readonly settings: readonly string[];
  /** What each setting does, in the words of the complaint. */
  readonly heard: Readonly<Record<string, string>>;
  readonly lines: readonly {
    readonly id: string;
    readonly part: string;
    readonly name: string;
    readonly amps: readonly number[];
    /** True if every dead speed needs it and no working one does. */
    readonly shared: boolean;
    /** Probability that it is at fault. */
    readonly p: number;
    readonly cleared: boolean;
  }[];
  /** The cell lit on the sheet. */
  readonly lit: LitCell | null;
  readonly onLight: (cell: LitCell) => void;
}

const leastAmps = 0.02;
const widest = 20;

/** Parts by speeds: the healthy current of each, by line weight; a tap lights its path on the sheet. */
export const PathBoard = memo(function PathBoard({ settings, heard, lines, lit, onLight }: PathBoardProps) {
  const most = Math.max(1, ...lines.flatMap(({ amps }) => amps));
  return (
    <table className="w-full border-collapse text-base">
      <caption className="sr-only">
        Current through each part on each speed of a healthy vehicle, and what the readings say about it
      </caption>
      <BoardHead settings={settings} heard={heard} />
      <tbody>
        {lines.map((line) => {
          const { p, cleared: out } = line;
          return (
            <tr
              key={line.id}
              className={`border-t border-rule ${line.shared ? "bg-[var(--mark)]" : ""}`}
              data-path={line.id}
            >
              <th
                scope="row"
                className={`truncate py-0.5 pr-2 pl-2 text-left font-normal ${out ? "text-soft line-through" : ""}`}
              >
                <span className={line.shared ? "font-bold" : "font-semibold"}>{line.id}</span>{" "}
                <span className="text-soft">{line.name}</span>
              </th>
              {settings.map((setting, index) => {
                const amps = line.amps[index] ?? 0;
                return (
                  <td key={setting} className="p-0 text-center">
                    {amps > leastAmps && (
                      <button
                        type="button"
                        aria-label={`${line.id} on ${setting}: ${ampsText(amps)}; show it on the drawing`}
                        aria-pressed={lit?.id === line.id && lit.setting === setting}
                        onClick={() => onLight({ id: line.id, part: line.part, setting })}
                        className="grid h-9 w-full min-w-11 place-items-center aria-pressed:outline-3 aria-pressed:-outline-offset-3 aria-pressed:outline-[var(--feed)]"
                      >
                        <span
                          aria-hidden="true"
                          className="block bg-ink"
                          style={{ width: "70%", height: `${Math.max(2, (widest * amps) / most)}px` }}
                        />
                      </button>
                    )}
                  </td>
                );
              })}
              <td className="pr-2 whitespace-nowrap">
                {out ? "cleared" : p >= 0.005 ? <span className="figures">{percent(p)}</span> : ""}
                {line.shared && (
                  <span className="block text-[0.8rem] leading-tight">on every dead speed</span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
});

interface BoardHeadProps {
  readonly settings: PathBoardProps["settings"];
  readonly heard: PathBoardProps["heard"];
}

/** The speeds and what each of them does. */
function BoardHead({ settings, heard }: BoardHeadProps) {
  return (
    <thead className="sticky top-0 z-10 bg-card">
      <tr>
        <th scope="col" className="pl-2 text-left font-normal text-soft">
          carries current on
        </th>
        {settings.map((setting) => (
          <th key={setting} scope="col" className="px-1 leading-tight">
            {setting}
            <span className="block text-[0.8rem] font-normal text-soft">{heard[setting] ?? "·"}</span>
          </th>
        ))}
        <th scope="col" className="pr-2 text-left font-normal text-soft">
          so far
        </th>
      </tr>
    </thead>
  );
}

import { percent } from "@core/units/wording";

/** A part under suspicion with the faults inside it. */
export interface SuspectLine {
  readonly part: string;
  readonly name: string;
  readonly p: number;
  readonly faults: readonly {
    readonly fault: string;
    readonly words: string;
    readonly p: number;
    readonly why: string;
  }[];
}

interface SuspectsProps {
  readonly suspects: readonly SuspectLine[];
  /** Fault the sheet is shown under; null for healthy. */
  readonly under: string;
  readonly shownFaults: readonly string[];
  readonly onShow: (fault: string) => void;
}

/** What could be wrong, by part to replace; opening one tells why, and shows the circuit as if it were so. */
export function Suspects({ suspects, under, shownFaults, onShow }: SuspectsProps) {
  return (
    <section aria-labelledby="suspects">
      <h2 id="suspects" className="text-base font-semibold text-soft">
        Suspects
      </h2>
      <ul className="mt-1 border-b border-rule">
        {suspects.map(({ part, name, p, faults }) => (
          <li key={part} className="relative border-t border-rule" data-suspect={part}>
            <details name="suspect">
              <summary className="flex min-h-11 cursor-pointer list-none items-center justify-between gap-3">
                <span className="min-w-0 truncate">
                  <span className="font-semibold">{name}</span>{" "}
                  <span className="text-base text-soft">{faults[0]?.words}</span>
                </span>
                <span className="figures font-semibold whitespace-nowrap">{percent(p)}</span>
              </summary>
              <ul className="pb-3 text-base">
                {faults.map(({ fault, words, p: own, why }) => (
                  <li key={fault} className="mt-1">
                    <p>
                      <span className="font-semibold">{words}</span>{" "}
                      <span className="figures">{percent(own)}</span>{" "}
                      {shownFaults.includes(fault) && (
                        <button
                          type="button"
                          aria-pressed={under === fault}
                          className="min-h-8 px-1 underline aria-pressed:font-bold"
                          onClick={() => onShow(under === fault ? "healthy" : fault)}
                        >
                          {under === fault ? "show healthy" : "show as if so"}
                        </button>
                      )}
                    </p>
                    <p className="text-soft">{why}</p>
                  </li>
                ))}
              </ul>
            </details>
            <span
              aria-hidden="true"
              className="doubt-bar pointer-events-none absolute top-[2.15rem] left-0 block"
              style={{ width: `${Math.min(100, p * 100)}%` }}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

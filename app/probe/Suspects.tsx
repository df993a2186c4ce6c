import { percent } from "@core/units/wording";
import { useState } from "react";
import { DoubtBar } from "../ui/DoubtBar";
import { BeliefSteps } from "./BeliefSteps";
import type { SuspectLine } from "./suspectLine";

interface SuspectsProps {
  readonly suspects: readonly SuspectLine[];
  /** The fault the sheet assumes; null for healthy. */
  readonly under: string;
  readonly shownFaults: readonly string[];
  readonly onShow: (fault: string) => void;
}

/** What could be wrong, by part to replace. Opening one shows its reasons, and the circuit as if it were true. */
export function Suspects(props: SuspectsProps) {
  const electrical = props.suspects.filter(({ mechanical }) => !mechanical);
  const mechanical = props.suspects.filter((line) => line.mechanical);
  return (
    <section aria-labelledby="suspects">
      <h2 id="suspects" className="text-base font-semibold text-soft">
        Suspects
      </h2>
      <Lines {...props} suspects={electrical} />
      {mechanical.length > 0 && (
        <>
          <h3 className="mt-2 text-base font-semibold text-soft">
            Mechanical faults (check by hand and ear)
          </h3>
          <Lines {...props} suspects={mechanical} />
        </>
      )}
    </section>
  );
}

const Lines = ({ suspects, ...rest }: SuspectsProps) => (
  <ul className="mt-1 border-b border-rule">
    {suspects.map((line) => (
      <Line key={line.key} line={line} {...rest} />
    ))}
  </ul>
);

interface LineProps extends Omit<SuspectsProps, "suspects"> {
  readonly line: SuspectLine;
}

/** One part under suspicion; its faults render only while it is open. */
function Line({ line: { repair, name, p, moved, faults }, under, shownFaults, onShow }: LineProps) {
  const [open, setOpen] = useState(false);
  return (
    <li className="relative border-t border-rule" data-suspect={repair}>
      <details name="suspect" onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
        <summary className="flex min-h-11 cursor-pointer list-none items-center justify-between gap-3">
          <span className="min-w-0 grow truncate">
            <span className="font-semibold">{name}</span>{" "}
            <span className="text-base text-soft">{faults[0]?.words}</span>
          </span>
          {moved.length > 1 && <BeliefSteps p={moved} />}
          <span className="figures min-w-14 shrink-0 text-right font-semibold whitespace-nowrap">
            {percent(p)}
          </span>
        </summary>
        {open && (
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
                      {under === fault ? "show healthy" : "show as if true"}
                    </button>
                  )}
                </p>
                <p className="text-soft">{why}</p>
              </li>
            ))}
          </ul>
        )}
      </details>
      <DoubtBar p={p} at="top-[2.15rem]" />
    </li>
  );
}

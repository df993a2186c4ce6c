import { minutesText, percent } from "@core/units/wording";
import { speedText } from "@words/tests/setupText";
import { cardLine } from "@words/tests/testText";
import { useState } from "react";
import { Fold } from "../ui/Fold";
import type { OfferedTest } from "./offeredTest";

interface OtherLooksProps {
  readonly looks: readonly OfferedTest[];
  /** The test on the card, as it would be sent. */
  readonly shown: string | null;
  /** Puts a test on the card, by its position in the list. */
  readonly onTake: (at: number) => void;
}

const columns = [
  { key: "worth", title: "Test", order: () => 0 },
  { key: "bits", title: "Information", order: (a: OfferedTest, b: OfferedTest) => b.bits - a.bits },
  { key: "minutes", title: "Minutes", order: (a: OfferedTest, b: OfferedTest) => a.minutes - b.minutes },
] as const;

type Key = (typeof columns)[number]["key"];

/** Every suggested test, sorted by worth, by information, or by minutes; a tap puts it on the card. */
export function OtherTests({ looks: tests, shown, onTake }: OtherLooksProps) {
  const [by, setBy] = useState<Key>("worth");
  const order = columns.find(({ key }) => key === by)?.order ?? (() => 0);
  const most = Math.max(1e-9, ...tests.map(({ bits }) => bits));
  const sorted = [...tests].sort(order);
  if (tests.length < 2) return null;
  return (
    <Fold title="Other tests" className="border-t border-rule">
      <table className="w-full border-collapse pb-2 text-base">
        <thead>
          <tr>
            {columns.map(({ key, title }) => (
              <th
                key={key}
                scope="col"
                aria-sort={by === key ? (key === "bits" ? "descending" : "ascending") : "none"}
                className={key === "worth" ? "text-left" : "text-right"}
              >
                <button type="button" className="min-h-11 px-1 underline" onClick={() => setBy(key)}>
                  {title}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sorted.map((offered) => (
            <tr key={offered.look} className="border-t border-rule">
              <td>
                <button
                  type="button"
                  aria-pressed={offered.look === shown}
                  className="min-h-11 py-1 text-left underline aria-pressed:font-bold"
                  onClick={() => onTake(tests.indexOf(offered))}
                >
                  {cardLine(offered.words)}
                  {offered.setting && <span className="text-soft">, {speedText(offered.setting)}</span>}
                </button>
              </td>
              <td className="px-1">
                <span
                  role="img"
                  aria-label={`${percent(offered.bits / most)} of the most informative test`}
                  className="ml-auto block h-2.5 bg-ground"
                  style={{ width: `${Math.max(2, (48 * offered.bits) / most)}px` }}
                />
              </td>
              <td className="figures pl-1 text-right whitespace-nowrap">{minutesText(offered.minutes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Fold>
  );
}

import { type Pattern, patterns } from "@core/predict/moment";
import { airflowSeen } from "@core/predict/observations/airflowSeen";
import { heardSpeedText } from "@words/complaintWords";
import { airflowWords, patternWords } from "@words/stateWords";
import { QueuedForm, usePending } from "../entries/QueuedForm";
import { Fold } from "../ui/Fold";

/** What a speed does, and how that comes and goes. */
export interface HeardSpeed {
  readonly seen: (typeof airflowSeen)[number];
  readonly pattern: Pattern | null;
}

export interface StripProps {
  readonly settings: readonly string[];
  readonly heard: Readonly<Record<string, HeardSpeed>>;
  /** One token for each setting, so that the same tap sent twice is stored once. */
  readonly tokens: Readonly<Record<string, string>>;
}

/** With more speeds than this a chosen cell is too narrow for its word, and shows a dot. */
const mostWithWords = 5;

/**
 * One column per speed, one row per word: a tap says what that speed does, a second tap deletes it. Below, one more tap
 * says how it comes and goes.
 */
export function ComplaintStrip({ settings, heard, tokens }: StripProps) {
  const narrow = settings.length > mostWithWords;
  return (
    <>
      <StripTable caption="What each speed does" settings={settings}>
        {airflowSeen.map((word) => (
          <StripRow key={word} title={airflowWords[word]}>
            {settings.map((setting) => (
              <StripCell
                key={setting}
                setting={setting}
                title={airflowWords[word]}
                says="seen"
                fields={{ seen: word, pattern: word === "normal" ? "" : (heard[setting]?.pattern ?? "") }}
                cleared={{ seen: "", pattern: "" }}
                chosen={heard[setting]?.seen === word}
                token={tokens[setting] ?? ""}
                narrow={narrow}
              />
            ))}
          </StripRow>
        ))}
      </StripTable>
      <Fold
        title="It does not do this all the time"
        initially={Object.values(heard).some(({ pattern }) => pattern)}
      >
        <StripTable caption="When each speed does it" settings={settings}>
          {patterns.map((pattern) => (
            <StripRow key={pattern} title={patternWords[pattern]}>
              {settings.map((setting, place) => {
                const own = heard[setting];
                const asItShould = place === 0 ? "none" : "normal";
                if (!own || own.seen === asItShould) return <td key={setting} />;
                return (
                  <StripCell
                    key={setting}
                    setting={setting}
                    title={patternWords[pattern]}
                    says="pattern"
                    fields={{ seen: own.seen, pattern }}
                    cleared={{ seen: own.seen, pattern: "" }}
                    chosen={own.pattern === pattern}
                    token={tokens[setting] ?? ""}
                    narrow={narrow}
                  />
                );
              })}
            </StripRow>
          ))}
        </StripTable>
        <p className="text-base text-soft">
          Say what it does while it fails, and when. Then take your readings while it fails.
        </p>
      </Fold>
    </>
  );
}

interface StripTableProps {
  readonly caption: string;
  readonly settings: readonly string[];
  readonly children: React.ReactNode;
}

const StripTable = ({ caption, settings, children }: StripTableProps) => (
  <table className="w-full table-fixed border-separate border-spacing-1">
    <caption className="sr-only">{caption}</caption>
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
    <tbody>{children}</tbody>
  </table>
);

const StripRow = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <tr>
    <th scope="row" className="pr-2 text-right text-base font-normal text-soft">
      {title}
    </th>
    {children}
  </tr>
);

interface CellFields {
  readonly seen: HeardSpeed["seen"] | "";
  readonly pattern: Pattern | "";
}

interface CellProps {
  readonly setting: string;
  readonly title: string;
  /** Which of the two fields the cell is about. */
  readonly says: keyof CellFields;
  /** What a tap says of the speed, and what a second tap leaves. */
  readonly fields: CellFields;
  readonly cleared: CellFields;
  readonly chosen: boolean;
  readonly token: string;
  readonly narrow: boolean;
}

function StripCell({ setting, title, says, fields, cleared, chosen, token, narrow }: CellProps) {
  const pending = usePending({ intent: "heard", setting });
  const said = (own: CellFields): boolean => pending?.[says] === own[says];
  const pressed = pending ? said(fields) : chosen;
  const waiting = said(fields) || (chosen && said(cleared));
  const sent = pressed ? cleared : fields;
  return (
    <td className="p-0">
      <QueuedForm words={() => heardSpeedText(setting, sent.seen, sent.pattern)}>
        <input type="hidden" name="intent" value="heard" />
        <input type="hidden" name="token" value={token} />
        <input type="hidden" name="setting" value={setting} />
        <input type="hidden" name="pattern" value={sent.pattern} />
        <button
          type="submit"
          name="seen"
          value={sent.seen}
          aria-pressed={pressed}
          aria-label={`${setting}: ${title}`}
          aria-busy={waiting}
          className={`block h-12 w-full rounded-card border-[1.5px] ${pressed ? "border-ink bg-ink font-bold text-paper" : "border-[var(--edge)] bg-card text-soft"} ${waiting ? "border-dashed" : ""}`}
        >
          {!narrow && <span className="max-md:hidden">{pressed ? title : ""}</span>}
          <span aria-hidden="true" className={narrow ? "" : "md:hidden"}>
            {pressed ? "●" : ""}
          </span>
        </button>
      </QueuedForm>
    </td>
  );
}

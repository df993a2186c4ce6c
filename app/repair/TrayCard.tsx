import { type TrayNoteKind, trayNoteKinds } from "@core/access/tray";
import { trayNoteTitles } from "@words/trayWords";
import { useState } from "react";
import { Fold } from "../ui/Fold";
import type { RepairData } from "./repairView.server";
import { useTicks } from "./useTicks";

/** The tray by sort: screws removed, screws refitted, what became of the rest, and its warnings. */
export function TrayCard({ tray }: { tray: RepairData["tray"] }) {
  const calm = tray.calls.length === 0 && tray.unexplained.length === 0;
  const shown = tray.sorts.filter(({ out, back, lost }) => out + back + lost > 0);
  return (
    <section className="tag-card" aria-labelledby="tray">
      <div className="tag-face">
        <h2 id="tray" className="pr-8 font-bold">
          Tray:{" "}
          <span className="figures" data-testid="tray">
            {tray.lying}
          </span>{" "}
          {tray.lying === 1 ? "screw" : "screws"} in it
        </h2>
        {shown.length === 0 ? (
          <p className="text-base text-soft">
            <span className="figures">0</span> out, <span className="figures">0</span> back
          </p>
        ) : (
          <ul className="text-base">
            {shown.map(({ sort, lying, out, back, lost }) => (
              <li key={sort}>
                <b className="figures">{lying}</b> {sort}{" "}
                <span className="text-soft">
                  <span className="figures">{out}</span> out, <span className="figures">{back}</span> back
                  {lost > 0 && `, ${lost} lost`}
                </span>
              </li>
            ))}
          </ul>
        )}
        {tray.calls.map(({ step, kind, words }) => (
          <p
            key={`${step} ${kind}`}
            className={`mt-2 border-l-4 pl-2 text-base ${kind === "not-as-planned" ? "border-feed" : "border-danger font-semibold"}`}
          >
            {words}
          </p>
        ))}
        {calm && tray.out > 0 && tray.lying === 0 && (
          <p className="mt-2 text-base font-semibold">All screws are accounted for.</p>
        )}
        <TrayNotes tray={tray} />
        <Fold title="A screw is lost, found, new or left over">
          <TrayNoteForm sorts={shown.map(({ sort }) => sort)} />
        </Fold>
      </div>
    </section>
  );
}

/** What became of screws, as noted so far. */
function TrayNotes({ tray }: { tray: RepairData["tray"] }) {
  const { deleteNote, isWaiting } = useTicks();
  return tray.notes.map(({ id, text }) => (
    <p key={id} className="mt-1 flex flex-wrap items-center gap-2 text-base">
      <span className="border-l-4 border-rule pl-2">{text}</span>
      <button
        type="button"
        disabled={isWaiting({ id })}
        className="min-h-11 px-1 text-soft underline"
        aria-label={`delete: ${text}`}
        onClick={() => deleteNote(id)}
      >
        delete
      </button>
    </p>
  ));
}

/** Says what became of a screw. */
function TrayNoteForm({ sorts }: { sorts: readonly string[] }) {
  const { note } = useTicks();
  const [kind, setKind] = useState<TrayNoteKind>("lost");
  const asksWhy = kind === "lost" || kind === "spare";
  return (
    <form
      className="grid gap-2 pb-2 text-base"
      onSubmit={(event) => {
        event.preventDefault();
        const fields = new FormData(event.currentTarget);
        const said = (name: string): string => {
          const value = fields.get(name);
          return typeof value === "string" ? value.trim() : "";
        };
        note({ kind, sort: said("sort"), count: Number(said("count")), words: said("words") });
        event.currentTarget.reset();
      }}
    >
      <div className="grid grid-cols-[4.5rem_1fr] gap-2">
        <label className="grid gap-1 text-soft">
          How many
          <input
            name="count"
            type="number"
            min={1}
            max={99}
            defaultValue={1}
            required
            className="field figures text-ink"
          />
        </label>
        <label className="grid gap-1 text-soft">
          Sort
          <input
            name="sort"
            list="tray-sorts"
            required
            maxLength={60}
            defaultValue={sorts[0] ?? "screw"}
            key={sorts[0]}
            className="field text-ink"
          />
          <datalist id="tray-sorts">
            {sorts.map((sort) => (
              <option key={sort} value={sort} />
            ))}
          </datalist>
        </label>
      </div>
      <label className="grid gap-1 text-soft">
        What became of it
        <select
          name="kind"
          value={kind}
          onChange={(event) =>
            setKind(trayNoteKinds.find((own) => own === event.currentTarget.value) ?? "lost")
          }
          className="field text-ink"
        >
          {trayNoteKinds.map((own) => (
            <option key={own} value={own}>
              {trayNoteTitles[own]}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1 text-soft">
        {kind === "spare" ? "Why it is not needed" : "Where"}
        <input name="words" required={asksWhy} maxLength={200} className="field text-ink" />
      </label>
      <button type="submit" className="btn justify-self-start">
        Save
      </button>
    </form>
  );
}

import { fastenerText, sortName } from "@core/access/fastener";
import { fastenerHeads, fastenerKinds } from "@core/access/fastenerKind";
import type { Fastener } from "@core/access/fastenerSchema";
import { fastenersText, parseFasteners } from "@core/access/typedFastener";
import { useId, useState } from "react";

const sizes = [
  "5.5 mm",
  "7 mm",
  "8 mm",
  "10 mm",
  "13 mm",
  "7/32 in",
  "9/32 in",
  "5/16 in",
  "T15",
  "T20",
  "T25",
  "T30",
  "PH1",
  "PH2",
  "PZ2",
];

const isClip = (kind: string): boolean => kind.endsWith("clip");

/**
 * What holds a panel or part: typed as it is called out, or picked by kind, head and size. What is read from the text
 * is listed below it.
 */
export function FastenerField({ value }: { value: readonly Fastener[] }) {
  const [text, setText] = useState(fastenersText(value));
  const read = parseFasteners(text);
  const fasteners = read.ok ? read.value : [];
  const set = (own: readonly Fastener[]): void => setText(fastenersText(own));
  const note = useId();
  return (
    <fieldset className="grid gap-1 sm:col-span-2">
      <label className="grid gap-0.5 text-base text-soft">
        Screws and clips: 3 hex 5.5 mm plastic hidden, 2 nuts 7 mm, 3 push clips
        <input
          name="fasteners"
          value={text}
          onChange={(event) => setText(event.target.value)}
          autoComplete="off"
          aria-describedby={note}
          className="field w-full text-ink"
        />
      </label>
      <div id={note} className="text-base">
        {read.ok ? (
          <ul className="flex flex-wrap gap-x-4">
            {fasteners.map((own, place) => (
              <li key={`${place} ${fastenerText(own)}`} className="flex items-center gap-1">
                {fastenerText(own)}
                <button
                  type="button"
                  className="min-h-11 px-1 text-soft underline"
                  aria-label={`remove ${fastenerText(own)}`}
                  onClick={() => set(fasteners.toSpliced(place, 1))}
                >
                  remove
                </button>
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-danger">{read.problems[0]?.message}</p>
        )}
      </div>
      <FastenerPicker disabled={!read.ok} onAdd={(own) => set([...fasteners, own])} />
    </fieldset>
  );
}

interface FastenerPickerProps {
  readonly disabled: boolean;
  readonly onAdd: (fastener: Fastener) => void;
}

/** Picks one sort of fastener by its marks. */
function FastenerPicker({ disabled, onAdd }: FastenerPickerProps) {
  const [count, setCount] = useState(1);
  const [sort, setSort] = useState<SortFields>({ kind: "screw", head: "", size: "" });
  const [into, setInto] = useState<"" | "plastic" | "metal">("plastic");
  const [hidden, setHidden] = useState(false);
  const [back, setBack] = useState<"same" | "other" | "none">("same");
  const [instead, setInstead] = useState<SortFields>({ kind: "screw", head: "", size: "" });
  const add = (): void =>
    onAdd({
      count,
      ...sortFrom(sort),
      ...(into ? { into } : {}),
      ...(hidden ? { hidden: true } : {}),
      ...(back === "none" ? { back: 0 } : {}),
      ...(back === "other" ? { instead: { kind: instead.kind, ...sortFrom(instead) } } : {}),
    });
  return (
    <details className="text-base">
      <summary className="min-h-11 cursor-pointer py-2 underline">Pick instead of typing</summary>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        <label className="grid min-w-0 gap-0.5 text-soft">
          How many
          <input
            type="number"
            min={1}
            max={60}
            value={count}
            onChange={(event) => setCount(Math.min(60, Math.max(1, event.target.valueAsNumber || 1)))}
            className="field figures w-full min-w-0 text-ink"
          />
        </label>
        <SortPicker sort={sort} onSort={setSort} />
        <label className="grid min-w-0 gap-0.5 text-soft">
          Into
          <select
            value={into}
            onChange={(event) =>
              setInto((["plastic", "metal"] as const).find((own) => own === event.target.value) ?? "")
            }
            className="field w-full min-w-0 text-ink"
          >
            <option value="plastic">plastic</option>
            <option value="metal">metal</option>
            <option value="">not known</option>
          </select>
        </label>
        <label className="flex min-h-11 items-center gap-2 self-end">
          <input
            type="checkbox"
            checked={hidden}
            onChange={(event) => setHidden(event.target.checked)}
            className="size-5"
          />
          Hidden
        </label>
        <label className="grid min-w-0 gap-0.5 text-soft">
          When refitted
          <select
            value={back}
            onChange={(event) =>
              setBack((["other", "none"] as const).find((own) => own === event.target.value) ?? "same")
            }
            className="field w-full min-w-0 text-ink"
          >
            <option value="same">the same ones go back</option>
            <option value="other">new ones of another sort</option>
            <option value="none">none goes back</option>
          </select>
        </label>
        {back === "other" && <SortPicker sort={instead} onSort={setInstead} />}
        <button type="button" className="btn self-end" disabled={disabled} onClick={add}>
          Add {count} {sortName(sortFrom(sort), count)}
        </button>
      </div>
    </details>
  );
}

/** A sort as picked; an empty field is not known. */
interface SortFields {
  readonly kind: (typeof fastenerKinds)[number];
  readonly head: "" | (typeof fastenerHeads)[number];
  readonly size: string;
}

const sortFrom = ({ kind, head, size }: SortFields): Pick<Fastener, "kind" | "head" | "size"> => ({
  ...(kind === "screw" && (head || size) ? {} : { kind }),
  ...(head && !isClip(kind) ? { head } : {}),
  ...(size && !isClip(kind) ? { size } : {}),
});

/** Kind, head and size of a fastener. */
function SortPicker({ sort, onSort }: { sort: SortFields; onSort: (sort: SortFields) => void }) {
  return (
    <>
      <label className="grid min-w-0 gap-0.5 text-soft">
        Kind
        <select
          value={sort.kind}
          onChange={(event) =>
            onSort({ ...sort, kind: fastenerKinds.find((own) => own === event.target.value) ?? "screw" })
          }
          className="field w-full min-w-0 text-ink"
        >
          {fastenerKinds.map((kind) => (
            <option key={kind} value={kind}>
              {sortName({ kind })}
            </option>
          ))}
        </select>
      </label>
      {!isClip(sort.kind) && (
        <>
          <label className="grid min-w-0 gap-0.5 text-soft">
            Head
            <select
              value={sort.head}
              onChange={(event) =>
                onSort({ ...sort, head: fastenerHeads.find((own) => own === event.target.value) ?? "" })
              }
              className="field w-full min-w-0 text-ink"
            >
              <option value="">not known</option>
              {fastenerHeads.map((head) => (
                <option key={head} value={head}>
                  {head}
                </option>
              ))}
            </select>
          </label>
          <label className="grid min-w-0 gap-0.5 text-soft">
            Size
            <select
              value={sort.size}
              onChange={(event) => onSort({ ...sort, size: event.target.value })}
              className="field figures w-full min-w-0 text-ink"
            >
              <option value="">not known</option>
              {sizes.map((size) => (
                <option key={size} value={size}>
                  {size}
                </option>
              ))}
            </select>
          </label>
        </>
      )}
    </>
  );
}

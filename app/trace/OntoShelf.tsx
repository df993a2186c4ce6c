import { Form, useNavigation } from "react-router";
import { Refusal, SaveAnyway } from "../shelf/ImportForm";
import type { TracedDraft } from "./tracedDraft.server";

interface OntoShelfProps {
  readonly name: TracedDraft["name"];
  readonly shelf: TracedDraft["shelf"];
  /** True while changes are on their way that would be missing. */
  readonly waiting: boolean;
  readonly refused: readonly string[] | null;
  /** What is certainly wrong with it as it is. */
  readonly broken: readonly string[];
}

/** Puts the draft on the shelf, as a new circuit or as the next version of one. */
export function OntoShelf({ name, shelf, broken, waiting, refused }: OntoShelfProps) {
  const busy = useNavigation().state !== "idle" || waiting;
  return (
    <section aria-labelledby="store" className="sheet-card grid gap-3 p-4">
      <h2 id="store" className="text-lg font-bold">
        Save to the shelf
      </h2>
      {shelf && shelf.twins.length > 0 && (
        <p className="text-base">
          A circuit of the same structure is already there: {shelf.twins.map(({ title }) => title).join("; ")}
          .
        </p>
      )}
      {shelf?.changes && (
        <p className="text-base">
          {shelf.changes.length === 0
            ? "The shelf already has all of it."
            : `It becomes version ${shelf.version}; ${shelf.changes.length} things differ: ${shelf.changes
                .slice(0, 12)
                .map(({ id }) => id)
                .join(", ")}. Jobs keep the version they started with until you move them.`}
        </p>
      )}
      <Form method="post" className="flex flex-wrap items-end gap-3" key={name.id}>
        <label className="grid grow gap-1 text-base text-soft">
          Vehicle
          <input
            name="title"
            defaultValue={name.title}
            required
            maxLength={200}
            className="field w-full text-ink"
          />
        </label>
        <label className="grid gap-1 text-base text-soft">
          Id on the shelf
          <input
            name="id"
            defaultValue={name.id}
            required
            maxLength={64}
            className="field figures w-64 text-ink"
          />
        </label>
        {broken.length > 0 && <SaveAnyway broken={broken} />}
        <button type="submit" name="intent" value="store" className="btn btn-main" disabled={busy}>
          {shelf?.changes ? `Save as version ${shelf.version}` : "Save to the shelf"}
        </button>
        {refused && <Refusal problems={refused} />}
      </Form>
    </section>
  );
}

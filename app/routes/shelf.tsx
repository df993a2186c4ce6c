import { listCircuits, type ShelfLine } from "@db/repositories/circuits.server";
import { familyText } from "@words/circuitWords";
import { Form, Link } from "react-router";
import { z } from "zod";
import { everyWord } from "../find/everyWord";
import { Rail } from "../shell/Rail";
import type { Route } from "./+types/shelf";

const asked = z.object({
  q: z.string().max(120).default(""),
  control: z.enum(["", "resistor", "linear", "chopping", "switch"]).catch(""),
  side: z.enum(["", "ground", "feed"]).catch(""),
  speeds: z.coerce.number().int().min(0).max(24).catch(0),
});

/** The rows that match a search: every word in the title, the id or the family, and the family filters. */
function found(
  lines: readonly ShelfLine[],
  { q, control, side, speeds }: z.infer<typeof asked>,
): ShelfLine[] {
  const matches = everyWord(q);
  return lines.filter(({ shelfId, title, about }) => {
    return (
      matches(`${shelfId} ${title} ${about ? familyText(about.family) : ""}`) &&
      (control === "" || about?.family.control === control) &&
      (side === "" || about?.family.side === side) &&
      (speeds === 0 || about?.family.speeds === speeds)
    );
  });
}

export async function loader({ request }: Route.LoaderArgs) {
  const search = asked.parse(Object.fromEntries(new URL(request.url).searchParams));
  const all = await listCircuits();
  const twinsOf = new Map<string, { shelfId: string; title: string }[]>();
  for (const { about, shelfId, title } of all)
    if (about) twinsOf.set(about.shape, [...(twinsOf.get(about.shape) ?? []), { shelfId, title }]);
  return {
    search,
    all: all.length,
    speeds: [...new Set(all.flatMap(({ about }) => about?.family.speeds ?? []))].sort((a, b) => a - b),
    lines: found(all, search).map(({ shelfId, title, version, about }) => ({
      shelfId,
      title,
      version,
      family: about ? familyText(about.family) : "cannot be solved",
      twins: (twinsOf.get(about?.shape ?? "") ?? []).filter((other) => other.shelfId !== shelfId),
    })),
  };
}

export const meta: Route.MetaFunction = () => [{ title: "Circuit shelf · Airway" }];

export default function Shelf({ loaderData }: Route.ComponentProps) {
  const { search, lines, all, speeds } = loaderData;
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto w-full max-w-5xl grow p-5">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <h1 className="text-2xl font-bold">Circuit shelf</h1>
          <span className="flex flex-wrap gap-2">
            <Link to="/trace" className="btn btn-main">
              Trace a circuit
            </Link>
            <Link to="/bring-in" className="btn">
              Import
            </Link>
            <a href="/shelf-bundle" download className="btn">
              Export shelf
            </a>
          </span>
        </div>
        <ShelfSearch search={search} speeds={speeds} />
        <p className="mt-3 text-base text-soft" role="status">
          {lines.length} of {all} circuits
        </p>
        {lines.length === 0 ? (
          <p className="sheet-card mt-3 p-5 text-soft">
            {all === 0
              ? "The shelf is empty. Trace a circuit, or import an airway-circuit file."
              : "No circuit matches. Use fewer words, or remove a filter."}
          </p>
        ) : (
          <ul className="mt-2 divide-y divide-rule border-y border-rule">
            {lines.map(({ shelfId, title, version, family, twins }) => (
              <li
                key={shelfId}
                data-circuit={shelfId}
                className="flex flex-wrap items-baseline gap-x-4 py-2.5"
              >
                <Link to={`/shelf/${shelfId}`} className="font-semibold underline">
                  {title}
                </Link>
                <span className="text-base text-soft">{family}</span>
                <span className="grow text-right text-base text-soft">
                  <code className="figures">{shelfId}</code>
                  {version > 1 && `, version ${version}`}
                </span>
                {twins.length > 0 && (
                  <span className="w-full text-base text-soft">
                    Same wiring as: {twins.map((twin) => twin.title).join("; ")}
                  </span>
                )}
              </li>
            ))}
          </ul>
        )}
      </main>
    </div>
  );
}

interface ShelfSearchProps {
  readonly search: Route.ComponentProps["loaderData"]["search"];
  readonly speeds: Route.ComponentProps["loaderData"]["speeds"];
}

/** The filter of the shelf. */
function ShelfSearch({ search, speeds }: ShelfSearchProps) {
  return (
    <Form className="mt-4 flex flex-wrap items-end gap-3 text-base" role="search">
      <label className="grid grow gap-1 text-soft">
        Vehicle or words
        <input name="q" type="search" defaultValue={search.q} maxLength={120} className="field w-full" />
      </label>
      <label className="grid gap-1 text-soft">
        Speed control
        <select name="control" defaultValue={search.control} className="field">
          <option value="">any</option>
          <option value="resistor">resistor pack</option>
          <option value="linear">linear control module</option>
          <option value="chopping">PWM control module</option>
          <option value="switch">switch only</option>
        </select>
      </label>
      <label className="grid gap-1 text-soft">
        Switched on the
        <select name="side" defaultValue={search.side} className="field">
          <option value="">either side</option>
          <option value="ground">ground side</option>
          <option value="feed">feed side</option>
        </select>
      </label>
      <label className="grid gap-1 text-soft">
        Speeds
        <select name="speeds" defaultValue={search.speeds} className="field">
          <option value="0">any</option>
          {speeds.map((count) => (
            <option key={count} value={count}>
              {count}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn">
        Find
      </button>
    </Form>
  );
}

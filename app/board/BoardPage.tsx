import { type BoardGroup, boardGroups } from "@core/records/boardGroup";
import { boardGroupWords } from "@words/stateWords";
import { Form, Link } from "react-router";
import { useAddressQuery } from "../shell/addressQuery";
import { DemoNotice } from "../shell/DemoNotice";
import { FirstSteps } from "../shell/FirstSteps";
import { useSignedIn } from "../shell/signedIn";
import { BoardRow } from "./BoardRow";
import { type BoardOrder, boardOrders, jobsShown } from "./boardJob";
import type { BoardView } from "./boardView.server";
import { FollowUps } from "./FollowUps";

/** The shop's board: open jobs grouped by what has to be done next, and the jobs closed today. */
export function BoardPage({ board, followedUp }: { board: BoardView; followedUp: FollowedUp | null }) {
  const [search, setSearch] = useAddressQuery();
  const query = search.get("words") ?? "";
  const asked = search.get("order") ?? "";
  const order: BoardOrder = asked in boardOrders ? (asked as BoardOrder) : "promised";
  const only = boardGroups.find((group) => group === search.get("show")) ?? null;
  const set = (name: string, value: string): void =>
    setSearch((now) => {
      if (value) now.set(name, value);
      else now.delete(name);
      return now;
    });
  const { runsShop } = useSignedIn();
  const found = jobsShown(board.jobs, query, order);
  const open = board.jobs.some(({ group }) => group !== "done");
  return (
    <main id="main" className="mx-auto w-full max-w-6xl grow p-5 max-md:p-3">
      <BoardHead />
      <Notices backup={board.backup} unreadable={board.unreadable} />
      {board.demo !== null && runsShop && (
        <div className="mt-2">
          <DemoNotice shop={board.demo} />
        </div>
      )}
      <FollowUps lines={board.followUps} />
      {followedUp && <FollowUpUndo {...followedUp} />}
      {board.jobs.length > 0 && (
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <Groups jobs={found} only={only} onShow={(group) => set("show", group)} />
          <input
            type="search"
            aria-label="Search the board"
            placeholder="Vehicle, words or number"
            className="field ml-auto min-w-0 grow basis-40 md:max-w-64"
            value={query}
            onChange={({ target }) => set("words", target.value)}
          />
          <select
            aria-label="Sort the board"
            className="field max-md:w-36"
            value={order}
            onChange={({ target }) => set("order", target.value)}
          >
            {Object.entries(boardOrders).map(([name, words]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </select>
        </div>
      )}
      {board.emptyShelf && <FirstSteps />}
      {!open && !board.emptyShelf && board.noDiagram.length === 0 && (
        <p className="sheet-card mt-4 p-4 text-soft">
          No open jobs. Start one with New job when a vehicle comes in.
        </p>
      )}
      {board.jobs.length > 0 && found.length === 0 && (
        <p className="mt-4 text-soft">
          No job on the board has “{query}”. Older jobs are in the{" "}
          <Link to={`/records?words=${encodeURIComponent(query)}`} className="underline">
            records
          </Link>
          .
        </p>
      )}
      {only === null && <NoDiagramJobs jobs={board.noDiagram} />}
      {boardGroups
        .filter((group) => only === null || only === group)
        .map((group) => (
          <Group key={group} group={group} jobs={found.filter((job) => job.group === group)} />
        ))}
      <p className="mt-5 text-base">
        <Link to="/records" className="underline">
          All closed jobs
        </Link>
      </p>
    </main>
  );
}

interface GroupsProps {
  readonly jobs: BoardView["jobs"];
  readonly only: BoardGroup | null;
  readonly onShow: (group: string) => void;
}

/** How many jobs are in each group; a tap shows that group alone. */
const Groups = ({ jobs, only, onShow }: GroupsProps) => (
  <fieldset
    aria-label="Show"
    className="flex min-w-0 gap-1.5 max-md:w-full max-md:overflow-x-auto max-md:pb-1 md:flex-wrap"
  >
    {boardGroups.map((group) => {
      const count = jobs.filter((job) => job.group === group).length;
      return (
        <button
          key={group}
          type="button"
          aria-pressed={only === group}
          className="btn shrink-0 px-2.5 text-base aria-pressed:border-ink aria-pressed:bg-mark aria-pressed:font-bold"
          onClick={() => onShow(only === group ? "" : group)}
        >
          {boardGroupWords[group]} <span className="figures">{count}</span>
        </button>
      );
    })}
  </fieldset>
);

const Group = ({ group, jobs }: { group: BoardGroup; jobs: BoardView["jobs"] }) =>
  jobs.length > 0 && (
    <section aria-labelledby={`group-${group}`} className="mt-4">
      <h2 id={`group-${group}`} className="text-lg font-bold">
        {boardGroupWords[group]} <span className="figures font-normal text-soft">{jobs.length}</span>
      </h2>
      <ul className="mt-1 divide-y divide-rule border-y border-edge">
        {jobs.map((job) => (
          <BoardRow key={job.id} job={job} />
        ))}
      </ul>
    </section>
  );

/** Open jobs on vehicles without a diagram; they have no circuit yet, and go on as other jobs once they have. */
const NoDiagramJobs = ({ jobs }: { jobs: BoardView["noDiagram"] }) =>
  jobs.length > 0 && (
    <section aria-labelledby="group-no-diagram" className="mt-4">
      <h2 id="group-no-diagram" className="text-lg font-bold">
        Without a diagram <span className="figures font-normal text-soft">{jobs.length}</span>
      </h2>
      <ul className="mt-1 divide-y divide-rule border-y border-edge">
        {jobs.map(({ id, label, seen, words, age }) => (
          <li key={id}>
            <Link
              to={`/no-diagram/${id}`}
              className="flex min-h-11 flex-wrap items-baseline gap-x-3 py-2 no-underline"
            >
              <span className="font-bold">{label || `Vehicle ${id}`}</span>
              <span className="grow text-base text-soft">{[words, seen].filter(Boolean).join(" · ")}</span>
              <span className="text-base text-soft">{age}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );

/** A follow-up that was just marked as made. */
export interface FollowedUp {
  readonly id: number;
  readonly vehicle: string;
}

/** Undoes marking a follow-up as made. */
const FollowUpUndo = ({ id, vehicle }: FollowedUp) => (
  <Form method="post" preventScrollReset role="status" className="mt-2 flex items-center gap-3">
    <input type="hidden" name="intent" value="not-followed-up" />
    <input type="hidden" name="job" value={id} />
    {vehicle}: followed up.
    <button type="submit" className="min-h-11 px-2 underline">
      Undo
    </button>
  </Form>
);

/** What everyone in the shop should see first: an old backup, jobs that cannot be read. */
function Notices({ backup, unreadable }: Pick<BoardView, "backup" | "unreadable">) {
  const { runsShop } = useSignedIn();
  return (
    <>
      {backup && (
        <p role="alert" className="mt-3 border-l-4 border-danger pl-3">
          {backup}{" "}
          {runsShop && (
            <Link to="/records/keeping" className="underline">
              Back up now
            </Link>
          )}
        </p>
      )}
      {unreadable.length > 0 && (
        <p role="alert" className="mt-3 text-danger">
          {unreadable.length === 1 ? "Job" : "Jobs"} {unreadable.join(", ")} cannot be read from the database.
          The other jobs are not affected; restore a backup to get {unreadable.length === 1 ? "it" : "them"}{" "}
          back.
        </p>
      )}
    </>
  );
}

/** The board's title, and the start of a job. */
const BoardHead = () => (
  <div className="flex flex-wrap items-center justify-between gap-3">
    <h1 className="text-2xl font-bold">Open jobs</h1>
    <Link to="/jobs/new" className="btn btn-main">
      New job
    </Link>
  </div>
);

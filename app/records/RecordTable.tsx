import type { RecordOrder } from "@db/recordQuery";
import { Link, useSearchParams } from "react-router";

/** One job as the table shows it, with its figures as texts. */
export interface RecordRow {
  readonly id: number;
  readonly vehicle: string;
  readonly circuit: string;
  readonly words: string;
  readonly came: string;
  readonly closed: string | null;
  readonly fault: string;
  readonly minutes: string;
  readonly money: string;
  readonly outcome: string;
  readonly back: boolean;
}

const headings: readonly (readonly [RecordOrder | null, string])[] = [
  ["came", "Arrived"],
  ["vehicle", "Vehicle"],
  [null, "Complaint and findings"],
  ["fault", "Fault"],
  ["minutes", "Time to verdict"],
  ["money", "Billed"],
  [null, "Outcome"],
];

/** A table of jobs; a heading sorts by its column, and a second tap reverses the order. */
export function RecordTable({ rows }: { rows: readonly RecordRow[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="table-cards w-full border-b border-rule text-left text-base">
        <thead>
          <tr>
            {headings.map(([order, title]) => (
              <Heading key={title} order={order} title={title} />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-rule align-top" data-job={row.id}>
              <td className="py-1.5 pr-3 whitespace-nowrap">
                <Link to={`/jobs/${row.id}/close`} className="inline-flex min-h-11 items-center underline">
                  {row.came}
                </Link>
              </td>
              <td className="py-1.5 pr-3">
                {row.vehicle}
                <span className="block text-soft">{row.circuit}</span>
              </td>
              <td className="max-w-md py-1.5 pr-3">{row.words}</td>
              <td className="py-1.5 pr-3">{row.fault}</td>
              <td data-label="Time to verdict" className="figures py-1.5 pr-3 text-right">
                {row.minutes}
              </td>
              <td data-label="Billed" className="figures py-1.5 pr-3 text-right">
                {row.money}
              </td>
              <td className={`py-1.5 ${row.back ? "text-danger" : ""}`}>{row.outcome}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Heading({ order, title }: { order: RecordOrder | null; title: string }) {
  const [search] = useSearchParams();
  if (!order)
    return (
      <th scope="col" className="py-2 pr-3 font-semibold">
        {title}
      </th>
    );
  const by = search.get("order") ?? "came";
  const down = (search.get("down") ?? "yes") === "yes";
  const next = new URLSearchParams(search);
  next.set("order", order);
  next.set("down", by === order && down ? "no" : "yes");
  next.delete("page");
  return (
    <th
      scope="col"
      aria-sort={by === order ? (down ? "descending" : "ascending") : "none"}
      className="py-2 pr-3 font-semibold"
    >
      <Link to={`?${next}`} className="inline-flex min-h-11 items-center underline">
        {title}
        <span aria-hidden="true">{by === order ? (down ? " ↓" : " ↑") : ""}</span>
      </Link>
    </th>
  );
}

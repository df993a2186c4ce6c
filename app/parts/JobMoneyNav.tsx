import { Link } from "react-router";

const pages = [
  ["parts", "Compare parts"],
  ["estimate", "Estimate"],
] as const;

/** Links between the part and its price. */
export function JobMoneyNav({ jobId, here }: { jobId: number; here: (typeof pages)[number][0] }) {
  return (
    <nav aria-label="Part and price" className="flex gap-2">
      {pages.map(([to, title]) => (
        <Link
          key={to}
          to={`/jobs/${jobId}/${to}`}
          aria-current={to === here ? "page" : undefined}
          className="btn aria-[current=page]:border-ink aria-[current=page]:bg-ink aria-[current=page]:text-paper"
        >
          {title}
        </Link>
      ))}
    </nav>
  );
}

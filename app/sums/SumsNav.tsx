import { benchSums } from "@core/sums/benchSums";
import { NavLink } from "react-router";

/** The list of sums; the job whose values they use is kept. */
export const SumsNav = ({ job }: { job: number | null }) => (
  <nav aria-label="Sums" className="min-w-0">
    <ol className="flex gap-1 max-md:overflow-x-auto md:flex-col">
      {benchSums.map(({ id, title }) => (
        <li key={id} className="shrink-0">
          <NavLink
            to={`/sums/${id}${job === null ? "" : `?job=${job}`}`}
            className="flex min-h-11 items-center border-b border-rule px-2 leading-tight no-underline aria-[current=page]:bg-mark aria-[current=page]:font-semibold max-md:max-w-44 max-md:border max-md:text-base"
          >
            {title}
          </NavLink>
        </li>
      ))}
    </ol>
  </nav>
);

import { Link } from "react-router";
import type { FoundGroup } from "./findView.server";

interface FoundListProps {
  readonly groups: readonly FoundGroup[];
  /** Called when a result is chosen. */
  readonly onChoose?: () => void;
}

/** What a search found, by kind; each result leads to its page. */
export const FoundList = ({ groups, onChoose }: FoundListProps) => (
  <div className="grid gap-3">
    {groups.map(({ title, found }) => (
      <section key={title} aria-label={title}>
        <h2 className="text-base font-semibold text-soft">{title}</h2>
        <ul className="divide-y divide-rule border-y border-rule">
          {found.map(({ to, title: name, detail }) => (
            <li key={`${to} ${name}`}>
              <Link
                to={to}
                {...(onChoose ? { onClick: onChoose } : {})}
                className="flex min-h-11 flex-wrap items-center gap-x-3 py-1 no-underline hover:underline"
              >
                <span className="font-semibold">{name}</span>
                <span className="text-base text-soft">{detail}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
    ))}
  </div>
);

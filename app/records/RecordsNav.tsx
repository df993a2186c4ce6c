import { NavLink } from "react-router";
import { useSignedIn } from "../shell/signedIn";

const pages = [
  ["/records", "Jobs"],
  ["/records/figures", "Statistics"],
  ["/records/learnt", "What the shop has learned"],
  ["/records/keeping", "Backup and restore"],
] as const;
const ownerPage = "/records/keeping";

/** Links to the pages of the shop's records. */
export function RecordsNav() {
  const { runsShop } = useSignedIn();
  return (
    <nav aria-label="Records" className="flex gap-2 max-md:overflow-x-auto max-md:pb-1 md:flex-wrap">
      {pages
        .filter(([to]) => runsShop || to !== ownerPage)
        .map(([to, title]) => (
          <NavLink
            key={to}
            to={to}
            end
            className="btn shrink-0 px-3 text-base aria-[current=page]:border-ink aria-[current=page]:bg-ink aria-[current=page]:text-paper"
          >
            {title}
          </NavLink>
        ))}
    </nav>
  );
}

import { useEffect, useRef } from "react";
import { Link, NavLink, useLocation } from "react-router";
import { FindDialog } from "../find/FindDialog";
import { navigationFor } from "../find/pages";
import { useSignedIn } from "./signedIn";
import { ThemeSwitch } from "./ThemeSwitch";

/** A step of the job and whether it is finished. */
export interface RailStep {
  readonly to: string;
  readonly title: string;
  readonly done: boolean;
}

const linkClass = ({ isActive }: { isActive: boolean }): string =>
  `flex min-h-11 shrink-0 items-center gap-2 border-transparent px-3 text-base no-underline max-md:border-t-4 md:min-h-8 md:border-l-4 md:px-2 ${isActive ? "!border-feed font-bold text-ink" : "text-soft"}`;

/**
 * The navigation. At a desk it is at the left: the search, the pages, and inside a job its steps below, with the
 * finished ones marked. On a phone it is at the bottom: a menu, then the job's steps, or the pages outside a job.
 */
export function Rail({ steps = [] }: { steps?: readonly RailStep[] }) {
  const rail = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // On a phone the rail is wider than the page, so the current step scrolls into view.
  useEffect(() => {
    const bar = rail.current;
    const here = bar?.querySelector<HTMLElement>('[aria-current="page"]');
    if (bar && here) bar.scrollLeft = here.offsetLeft - (bar.clientWidth - here.offsetWidth) / 2;
  }, [pathname]);
  const inJob = steps.length > 0;
  const { me, runsShop } = useSignedIn();
  const pages = navigationFor(runsShop);
  const switching = `/sign-in?${new URLSearchParams({ to: pathname })}`;
  return (
    <nav
      ref={rail}
      aria-label="Airway"
      className="no-print flex shrink-0 items-center gap-1 overflow-x-auto border-rule bg-paper max-md:order-last max-md:sticky max-md:bottom-0 max-md:z-20 max-md:h-[var(--rail)] max-md:border-t md:sticky md:top-0 md:h-screen md:w-28 md:flex-col md:items-stretch md:overflow-x-hidden md:overflow-y-auto md:border-r md:py-3"
    >
      <Link
        to="/"
        className="flex min-h-11 items-center px-3 text-lg font-bold no-underline max-md:hidden md:justify-center"
      >
        Airway
      </Link>
      <FindDialog pages={pages}>
        <div className="flex flex-wrap gap-2 md:hidden">
          <ThemeSwitch />
          {me && (
            <Link to={switching} className="btn px-3 text-base">
              {me.name}: switch
            </Link>
          )}
        </div>
      </FindDialog>
      <div className={`flex md:flex-col ${inJob ? "max-md:hidden md:border-b md:border-rule md:pb-2" : ""}`}>
        {pages.map(({ to, title }) => (
          <NavLink key={to} to={to} end={to === "/"} className={linkClass}>
            {title}
          </NavLink>
        ))}
      </div>
      {inJob && (
        <nav aria-label="Steps of the job" className="flex md:flex-col md:pt-1">
          {steps.map(({ to, title, done }) => (
            <NavLink key={to} to={to} className={linkClass}>
              <span
                aria-hidden="true"
                className={`inline-block size-2.5 shrink-0 rounded-full border-2 border-current ${done ? "bg-current" : ""}`}
              />
              {title}
              {done && <span className="sr-only"> (done)</span>}
            </NavLink>
          ))}
        </nav>
      )}
      <span className="grow" />
      <span className="grid shrink-0 gap-2 p-2 max-md:hidden">
        {me && (
          <Link
            to={switching}
            className="flex min-h-8 items-center px-1 text-base break-words underline"
            aria-label={`${me.name}: switch`}
          >
            {me.name}
          </Link>
        )}
        <ThemeSwitch />
      </span>
    </nav>
  );
}

import { useEffect, useRef } from "react";
import { Link, NavLink, useLocation } from "react-router";
import { ThemeSwitch } from "./ThemeSwitch";

/** A step of the job and whether it is finished. */
export interface RailStep {
  readonly to: string;
  readonly title: string;
  readonly done: boolean;
}

/**
 * The navigation at the left: Airway's name leads to the board, then come the job's steps, with the finished ones
 * marked.
 */
export function Rail({ steps = [] }: { steps?: readonly RailStep[] }) {
  const rail = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // On a phone the rail at the bottom is wider than the page, so the current step scrolls into view.
  useEffect(() => {
    const nav = rail.current;
    const here = nav?.querySelector<HTMLElement>('[aria-current="page"]');
    if (nav && here) nav.scrollLeft = here.offsetLeft - (nav.clientWidth - here.offsetWidth) / 2;
  }, [pathname]);
  return (
    <nav
      ref={rail}
      aria-label={steps.length > 0 ? "Steps of the job" : "Airway"}
      className="no-print flex shrink-0 items-center gap-1 overflow-x-auto border-rule bg-paper max-md:order-last max-md:sticky max-md:bottom-0 max-md:z-20 max-md:h-[var(--rail)] max-md:border-t md:w-28 md:flex-col md:items-stretch md:border-r md:py-3"
    >
      <Link
        to="/"
        className="flex min-h-11 items-center px-3 text-lg font-bold no-underline max-md:text-base md:justify-center md:pb-3"
      >
        Airway
      </Link>
      {steps.map(({ to, title, done }) => (
        <NavLink
          key={to}
          to={to}
          className={({ isActive }) =>
            `flex min-h-11 items-center gap-2 border-transparent px-3 text-base md:px-2 no-underline max-md:border-t-4 md:border-l-4 ${isActive ? "!border-feed font-bold text-ink" : "text-soft"}`
          }
        >
          <span
            aria-hidden="true"
            className={`inline-block size-2.5 shrink-0 rounded-full border-2 border-current ${done ? "bg-current" : ""}`}
          />
          {title}
          {done && <span className="sr-only"> (done)</span>}
        </NavLink>
      ))}
      <span className="grow" />
      <span className="shrink-0 p-2">
        <ThemeSwitch />
      </span>
    </nav>
  );
}

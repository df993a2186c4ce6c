import { Dialog } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { Link, useFetcher, useNavigate } from "react-router";
import { FoundList } from "./FoundList";
import type { FoundGroup } from "./findView.server";
import type { ShopPage } from "./pages";

/** Milliseconds after the last key until the server is asked. */
const pauseMilliseconds = 150;

interface FindPanelProps {
  readonly open: boolean;
  readonly setOpen: (open: boolean) => void;
  /** The pages to list. */
  readonly pages: readonly ShopPage[];
  /** Shown below the search, such as the theme. */
  readonly children?: React.ReactNode;
}

/** The search and the pages in a dialog; it is loaded when it is opened for the first time. */
export default function FindPanel({ open, setOpen, pages, children }: FindPanelProps) {
  const field = useRef<HTMLInputElement>(null);
  const close = (): void => setOpen(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            field.current?.focus();
          }}
          className="sheet-card fixed inset-x-2 top-2 z-50 mx-auto grid max-h-[calc(100dvh-1rem)] max-w-2xl content-start gap-3 overflow-y-auto p-4 md:top-16 md:max-h-[80vh]"
        >
          <div className="flex items-center justify-between gap-3">
            <Dialog.Title className="text-lg font-bold">Search and pages</Dialog.Title>
            <Dialog.Close className="btn px-3 text-base">Close</Dialog.Close>
          </div>
          <FindField field={field} onChoose={close} />
          <nav aria-label="Pages" className="flex flex-wrap gap-2">
            {pages.map(({ to, title }) => (
              <Link key={to} to={to} onClick={close} className="btn px-3 text-base">
                {title}
              </Link>
            ))}
          </nav>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface FindFieldProps {
  readonly field: React.RefObject<HTMLInputElement | null>;
  readonly onChoose: () => void;
}

/** The field and its results. Enter opens the first result. */
function FindField({ field, onChoose }: FindFieldProps) {
  const [query, setQuery] = useState("");
  const { load, data } = useFetcher<{ query: string; groups: FoundGroup[] }>();
  const navigate = useNavigate();
  useEffect(() => {
    if (!query.trim()) return;
    const timer = setTimeout(() => void load(`/find?q=${encodeURIComponent(query)}`), pauseMilliseconds);
    return () => clearTimeout(timer);
  }, [query, load]);
  const groups = query.trim() && data?.query === query ? data.groups : null;
  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const to = groups?.[0]?.found[0]?.to ?? `/find?q=${encodeURIComponent(query)}`;
          onChoose();
          void navigate(to);
        }}
      >
        <input
          ref={field}
          type="search"
          aria-label="Search jobs, vehicles, circuits, parts and pages"
          placeholder="Job number, vehicle, complaint, circuit, part or page"
          className="field w-full"
          value={query}
          onChange={({ target }) => setQuery(target.value)}
        />
      </form>
      <p role="status" className={groups?.length === 0 ? "text-base text-soft" : "sr-only"}>
        {groups === null ? "" : groups.length === 0 ? "Nothing found. Use fewer words." : countText(groups)}
      </p>
      {groups && <FoundList groups={groups} onChoose={onChoose} />}
    </>
  );
}

const countText = (groups: readonly FoundGroup[]): string =>
  `${groups.reduce((sum, { found }) => sum + found.length, 0)} found`;

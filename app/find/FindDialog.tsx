import { Menu, Search } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { Link, useFetcher, useNavigate } from "react-router";
import { FoundList } from "./FoundList";
import type { FoundGroup } from "./findView.server";
import { isTyping } from "./isTyping";
import { mainPages } from "./pages";

/** Milliseconds after the last key until the server is asked. */
const pauseMilliseconds = 150;

interface FindDialogProps {
  /** Shown below the search, such as the theme. */
  readonly children?: React.ReactNode;
}

/**
 * The search, from any page: `/` outside fields, or Ctrl-K. On a phone its button is the menu, since the dialog also
 * lists the pages.
 */
export function FindDialog({ children }: FindDialogProps) {
  const [open, setOpen] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const close = (): void => setOpen(false);
  useFindKeys(setOpen);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="flex min-h-11 shrink-0 items-center gap-2 px-3 text-base text-soft max-md:sticky max-md:left-0 max-md:z-10 max-md:h-full max-md:border-r max-md:border-rule max-md:bg-paper md:min-h-10 md:px-2">
        <Menu aria-hidden="true" className="size-5 md:hidden" />
        <Search aria-hidden="true" className="size-4 max-md:hidden" />
        <span className="md:hidden">Menu</span>
        <span className="max-md:hidden">Search</span>
        <kbd className="key-hint max-md:hidden">/</kbd>
      </Dialog.Trigger>
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
            {mainPages.map(({ to, title }) => (
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

/** Opens the search: `/` outside fields, Ctrl-K or Command-K anywhere. */
function useFindKeys(setOpen: (open: boolean) => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const chord = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k";
      const slash = event.key === "/" && !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!chord && !(slash && !isTyping(event))) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [setOpen]);
}

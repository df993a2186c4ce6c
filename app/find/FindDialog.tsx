import { Menu, Search } from "lucide-react";
import { lazy, Suspense, useEffect, useState } from "react";
import { KeyHint } from "../ui/KeyHint";
import { isTyping } from "./isTyping";
import type { ShopPage } from "./pages";

const FindPanel = lazy(() => import("./FindPanel"));

interface FindDialogProps {
  /** The pages to list. */
  readonly pages: readonly ShopPage[];
  /** Shown below the search, such as the theme. */
  readonly children?: React.ReactNode;
}

/**
 * The search, from any page: `/` outside fields, or Ctrl-K. On a phone its button is the menu, since the dialog also
 * lists the pages.
 */
export function FindDialog({ pages, children }: FindDialogProps) {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(false);
  useFindKeys(setOpen);
  if (open && !wanted) setWanted(true);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => setOpen(true)}
        className="flex min-h-11 shrink-0 items-center gap-2 px-3 text-base text-soft max-md:sticky max-md:left-0 max-md:z-10 max-md:h-full max-md:border-r max-md:border-rule max-md:bg-paper md:min-h-10 md:px-2"
      >
        <Menu aria-hidden="true" className="size-5 md:hidden" />
        <Search aria-hidden="true" className="size-4 max-md:hidden" />
        <span className="md:hidden">Menu</span>
        <span className="max-md:hidden">Search</span>
        <KeyHint at="max-md:hidden">/</KeyHint>
      </button>
      {wanted && (
        <Suspense>
          <FindPanel open={open} setOpen={setOpen} pages={pages}>
            {children}
          </FindPanel>
        </Suspense>
      )}
    </>
  );
}

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

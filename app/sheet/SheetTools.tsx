import { ChevronDown, Maximize2, Minus, Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { memo } from "react";

/** The sheet's actions, by its buttons and by keys. */
export type SheetOrder = "in" | "out" | "all" | "closer" | "save";
export const sheetEvent = "airway:sheet";

export const orderSheet = (order: SheetOrder): void =>
  void window.dispatchEvent(new CustomEvent(sheetEvent, { detail: order }));

const tool = "btn gap-1 px-2.5 text-base";
const entry =
  "flex min-h-11 cursor-pointer items-center px-4 outline-none data-[highlighted]:bg-[var(--mark)]";

interface SheetToolsProps {
  /** What "closer" zooms to. */
  readonly focus: string | null;
}

/** Fit, zoom out, zoom in; closer to the probe, save and print. */
export const SheetTools = memo(function SheetTools({ focus }: SheetToolsProps) {
  return (
    <fieldset className="flex gap-1" aria-label="The drawing">
      <button type="button" className={tool} onClick={() => orderSheet("all")}>
        <Maximize2 aria-hidden="true" className="size-4" />
        all
      </button>
      <button type="button" className={tool} aria-label="Smaller" onClick={() => orderSheet("out")}>
        <Minus aria-hidden="true" className="size-4" />
      </button>
      <button type="button" className={tool} aria-label="Larger" onClick={() => orderSheet("in")}>
        <Plus aria-hidden="true" className="size-4" />
      </button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={tool}>
          Drawing <ChevronDown aria-hidden="true" className="size-4" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="sheet-card z-30 grid border-ink py-1 text-base"
          >
            {focus && (
              <DropdownMenu.Item className={entry} onSelect={() => orderSheet("closer")}>
                Zoom to {focus}
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={entry} onSelect={() => orderSheet("save")}>
              Save as SVG
            </DropdownMenu.Item>
            {/* The menu must be closed before the page is printed. */}
            <DropdownMenu.Item className={entry} onSelect={() => setTimeout(() => window.print(), 100)}>
              Print the drawing
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </fieldset>
  );
});

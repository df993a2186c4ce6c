import { Keyboard } from "lucide-react";
import { Dialog } from "radix-ui";
import { memo } from "react";
import { Form, useLocation } from "react-router";

const keys: readonly (readonly [string, string])[] = [
  ["B  D  K", "test light bright, dim, dark"],
  ["1 – 6", "other results, by position"],
  ["0 – 9", "start a meter value"],
  ["Enter", "save the value"],
  ["N", "show the next suggested test"],
  ["U", "delete the last reading, or restore it"],
  ["F", "move the light's clip to the other battery post"],
  ["P", "open or close the path board"],
  ["[  ]", "one speed down, one speed up"],
  ["+  −  A  C", "zoom in, zoom out, show all, zoom to the probe"],
  ["/  Ctrl K", "search jobs, vehicles, circuits, parts and pages"],
  ["?", "show this list"],
];

interface KeyHelpProps {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly lettersOn: boolean;
}

/** All keys of the page, and the switch that turns the letters off. */
export const KeyHelp = memo(function KeyHelp({ open, onOpenChange, lettersOn }: KeyHelpProps) {
  const { pathname } = useLocation();
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Trigger className="btn gap-1 px-2.5 text-base max-md:hidden">
        <Keyboard aria-hidden="true" className="size-5" />
        keys
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="sheet-card fixed top-1/2 left-1/2 z-40 w-[min(92vw,30rem)] -translate-x-1/2 -translate-y-1/2 p-5"
        >
          <Dialog.Title className="text-lg font-bold">Keys</Dialog.Title>
          <dl className="mt-3 grid grid-cols-[7rem_1fr] gap-y-2">
            {keys.map(([key, does]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="key-hint">{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <div className="mt-5 flex justify-between">
            <Form method="post" action="/theme">
              <input type="hidden" name="back" value={pathname} />
              <button className="btn" type="submit" name="keys" value={lettersOn ? "off" : "on"}>
                Turn letter keys {lettersOn ? "off" : "on"}
              </button>
            </Form>
            <Dialog.Close className="btn btn-main">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});

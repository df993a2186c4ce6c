import { Keyboard } from "lucide-react";
import { Dialog } from "radix-ui";
import { memo } from "react";
import { Form, useLocation } from "react-router";

const keys: readonly (readonly [string, string])[] = [
  ["B  D  K", "the light was bright, dim, dark"],
  ["1 – 6", "an outcome by its place, where there is no light"],
  ["0 – 9", "start a value for a meter"],
  ["Enter", "save the value"],
  ["N", "the next suggestion"],
  ["U", "strike out the last reading"],
  ["F", "turn the light's clip round at a point you tapped"],
  ["P", "the path board, open or folded"],
  ["[  ]", "one speed down, one up"],
  ["+  −  A  C", "the sheet larger, smaller, all of it, closer to the probe"],
  ["?", "these keys"],
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
                Turn the keys {lettersOn ? "off" : "on"}
              </button>
            </Form>
            <Dialog.Close className="btn btn-main">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});

import { ToggleGroup } from "radix-ui";
import { memo } from "react";
import { type ShownSetup, withKey, withPlug } from "./shownSetup";

interface BenchBarProps {
  readonly settings: readonly string[];
  readonly heard: Readonly<Record<string, string>>;
  readonly setup: ShownSetup;
  readonly onSetup: (setup: ShownSetup) => void;
  /** Whether the engine can be shown running. */
  readonly engineToo?: boolean;
  /** The assumption the sheet shows. */
  readonly children: React.ReactNode;
}

/** The vehicle's set-up: speed, key, engine, and what is disconnected. */
export const SetupBar = memo(function BenchBar({
  settings,
  heard,
  setup,
  onSetup,
  engineToo = true,
  children,
}: BenchBarProps) {
  const { key, engine, setting, unplugged, lampFor } = setup;
  return (
    <div className="flex flex-wrap items-center gap-2 print:hidden">
      <ToggleGroup.Root
        type="single"
        value={setting}
        onValueChange={(value) => value && onSetup({ ...setup, setting: value })}
        aria-label="Speed shown on the drawing"
        className="flex max-w-full overflow-x-auto rounded-card border-[1.5px] border-ink bg-card"
      >
        {settings.map((name) => (
          <ToggleGroup.Item
            key={name}
            value={name}
            className="grid min-h-12 min-w-[3.1rem] place-items-center border-l border-rule px-1 leading-none first:border-l-0 data-[state=on]:bg-ink data-[state=on]:text-paper"
          >
            <span className="font-bold">{name}</span>
            <span className="text-[0.8rem]">{heard[name] ?? "·"}</span>
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <button
        type="button"
        className="btn px-3 text-base"
        onClick={() => onSetup(withKey(setup, key === "run" ? "off" : "run"))}
        aria-pressed={key === "run"}
      >
        Key <b>{key === "run" ? "run" : "out"}</b>
      </button>
      {engineToo && (
        <button
          type="button"
          className="btn px-3 text-base"
          onClick={() => onSetup({ ...setup, engine: !engine })}
          disabled={key !== "run"}
          aria-pressed={engine}
        >
          Engine <b>{engine ? "runs" : "off"}</b>
        </button>
      )}
      {children}
      {unplugged.map((id) => (
        <Out key={id} onBack={() => onSetup(withPlug(setup, id))}>
          {id} unplugged
        </Out>
      ))}
      {lampFor && <Out onBack={() => onSetup({ ...setup, lampFor: null })}>lamp in place of {lampFor}</Out>}
    </div>
  );
});

function Out({ children, onBack }: { children: React.ReactNode; onBack: () => void }) {
  return (
    <button type="button" className="btn border-dashed px-3 text-base" onClick={onBack}>
      {children}: <b>put back</b>
    </button>
  );
}

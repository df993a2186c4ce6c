import { useTicks } from "./useTicks";

interface TickButtonProps {
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
  readonly main?: boolean;
  readonly children: React.ReactNode;
}

/** Ticks a step with its screws. The tick counts once it is stored, and waits while the server is away. */
export function TickButton({ step, way, screws, main = false, children }: TickButtonProps) {
  const { tick, isWaiting } = useTicks();
  const busy = isWaiting({ step, way });
  return (
    <button
      type="button"
      disabled={busy}
      className={`btn text-left text-base ${main ? "btn-main w-full" : ""}`}
      onClick={() => tick(step, way, screws)}
    >
      <span aria-hidden="true">{busy ? "…" : "✓"}</span>
      <span className="min-w-0">{children}</span>
    </button>
  );
}

/** Removes a tick. */
export function UntickButton({ id }: { id: string }) {
  const { untick, isWaiting } = useTicks();
  return (
    <button
      type="button"
      disabled={isWaiting({ id })}
      className="min-h-11 px-1 text-base underline"
      onClick={() => untick(id)}
    >
      undo
    </button>
  );
}

interface ScrewCountProps {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** Counts screws up and down with large buttons. */
export function ScrewCount({ label, value, onChange }: ScrewCountProps) {
  return (
    <fieldset className="flex items-center">
      <legend className="sr-only">{label}</legend>
      <button
        type="button"
        aria-label={`${label}: one fewer`}
        className="btn min-w-11 px-0"
        onClick={() => onChange(Math.max(0, value - 1))}
      >
        −
      </button>
      <output className="figures w-9 text-center" aria-label={label}>
        {value}
      </output>
      <button
        type="button"
        aria-label={`${label}: one more`}
        className="btn min-w-11 px-0"
        onClick={() => onChange(Math.min(99, value + 1))}
      >
        +
      </button>
    </fieldset>
  );
}

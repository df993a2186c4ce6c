interface AsIfTrueProps {
  /** The assumption, in words. */
  readonly title: string;
  readonly lines: readonly {
    readonly number: number;
    readonly what: string;
    readonly seen: string;
    readonly expected: string;
    readonly agrees: boolean;
  }[];
  readonly onHealthy: () => void;
}

/** The readings compared with what a suspect would have shown: the quickest way to believe or doubt it. */
export function AsIfTrue({ title, lines, onHealthy }: AsIfTrueProps) {
  const against = lines.filter(({ agrees }) => !agrees).length;
  return (
    <section aria-labelledby="as-if" className="sheet-card p-3">
      <h2 id="as-if" className="font-bold">
        If true: {title}
      </h2>
      <p className="text-base text-soft">
        {lines.length === 0
          ? "No readings yet to compare it with."
          : against === 0
            ? "Every reading fits."
            : `${against} of ${lines.length} readings ${against === 1 ? "does" : "do"} not fit.`}{" "}
        The drawing shows what every point would read.
      </p>
      <ol className="mt-1 text-base">
        {lines.map(({ number, what, seen, expected, agrees }) => (
          <li key={number} className="flex gap-2 border-t border-rule py-0.5" data-agrees={agrees}>
            <span
              aria-hidden="true"
              className={`w-4 shrink-0 font-bold ${agrees ? "text-good" : "text-danger"}`}
            >
              {agrees ? "✓" : "✗"}
            </span>
            <span className="grow">
              {number}. {what}: <b>{seen}</b>
              {agrees ? "" : <span className="text-danger">, expected {expected}</span>}
              <span className="sr-only">{agrees ? " fits" : " does not fit"}</span>
            </span>
          </li>
        ))}
      </ol>
      <button type="button" className="mt-1 min-h-11 underline" onClick={onHealthy}>
        Show healthy circuit
      </button>
    </section>
  );
}

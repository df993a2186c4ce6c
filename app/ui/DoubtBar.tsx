interface DoubtBarProps {
  readonly p: number;
  /** Its height in the line it lies in, as a class: `bottom-0`. */
  readonly at: string;
}

/** A hatched bar as wide as a probability, laid over a line that also says it in figures. */
export const DoubtBar = ({ p, at }: DoubtBarProps) => (
  <span
    aria-hidden="true"
    className={`doubt-bar pointer-events-none absolute left-0 block ${at}`}
    style={{ width: `${Math.min(100, p * 100)}%` }}
  />
);

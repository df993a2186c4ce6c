interface SmallFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly hint?: string;
  /** Id of a list of suggestions. */
  readonly list?: string;
}

/** A field for a short figure or name. */
export function SmallField({ label, value, onChange, hint = "", list }: SmallFieldProps) {
  return (
    <label className="grid text-base text-soft">
      {label}
      <input
        className="field figures w-28 text-ink"
        inputMode={list ? "text" : "decimal"}
        placeholder={hint}
        list={list}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

interface SpeedChoiceProps {
  readonly label: string;
  /** Its accessible name, if the page has several with the same label. */
  readonly called?: string;
  readonly settings: readonly string[];
  readonly value: string;
  readonly onChange: (setting: string) => void;
}

/** One of the circuit's settings. */
export function SpeedChoice({ label, called, settings, value, onChange }: SpeedChoiceProps) {
  return (
    <label className="grid text-base text-soft">
      {label}
      <select
        aria-label={called}
        className="field text-ink"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {settings.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}

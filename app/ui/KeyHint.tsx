/** A key that does the same as the button it stands in; left out of the button's name. */
export const KeyHint = ({ at = "", children }: { at?: string; children: React.ReactNode }) => (
  <span aria-hidden="true" className={at}>
    <kbd className="key-hint">{children}</kbd>
  </span>
);

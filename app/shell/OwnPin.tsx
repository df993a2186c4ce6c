import { useSignedIn } from "./signedIn";

/** Asks for the PIN of whoever is signed in, before data is replaced or removed; nothing while nobody is named. */
export function OwnPin() {
  const { me } = useSignedIn();
  if (!me) return null;
  return (
    <label className="grid justify-self-start gap-0.5 text-base text-soft">
      PIN of {me.name}
      <input
        name="pin"
        type="password"
        required
        autoComplete="off"
        maxLength={64}
        className="field text-ink"
      />
    </label>
  );
}

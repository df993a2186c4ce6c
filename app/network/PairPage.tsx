import { Form, Link } from "react-router";
import type { Place } from "./visitor.server";

interface PairPageProps {
  /** The code that was scanned or typed; empty before. */
  readonly code: string;
  /** The name that was typed; empty before. */
  readonly name: string;
  /** The fingerprint of the shop's authority that was scanned; null if none was. */
  readonly fingerprint: string | null;
  /** Where the page is shown; null for a device that is not paired. */
  readonly place: Place | null;
  readonly problem: string | null;
}

/** Where a phone or tablet is paired with the shop's computer. */
export const PairPage = ({ code, name, fingerprint, place, problem }: PairPageProps) => (
  <main id="main" className="mx-auto grid w-full max-w-lg content-start gap-4 p-5">
    <h1 className="text-2xl font-bold">Pair this device</h1>
    {place ? (
      <p>
        {place.kind === "shop-computer"
          ? "This is the shop’s own computer. It needs no pairing."
          : `This device is paired as ${place.device.name}.`}{" "}
        <Link to="/">Go to the board</Link>
      </p>
    ) : (
      <>
        <p>
          On the shop’s computer, open <b>Settings</b>, then <b>Phones and people</b>. It shows the code for
          this device.
        </p>
        {problem && (
          <p role="alert" className="border-l-4 border-danger pl-3">
            {problem}
          </p>
        )}
        <Form method="post" reloadDocument className="sheet-card grid gap-3 p-4">
          <label className="grid gap-0.5">
            Code
            <input
              name="code"
              defaultValue={code}
              inputMode="numeric"
              autoComplete="one-time-code"
              required
              className="field figures text-xl tracking-widest"
            />
          </label>
          <label className="grid gap-0.5">
            Name of this device, such as bay 2 tablet
            <input
              name="name"
              defaultValue={name}
              autoComplete="off"
              required
              maxLength={60}
              className="field"
            />
          </label>
          <button type="submit" className="btn btn-main justify-self-start">
            Pair
          </button>
        </Form>
        {fingerprint && (
          <section aria-labelledby="authority" className="grid gap-1 text-base">
            <h2 id="authority" className="font-bold">
              To stop the warning
            </h2>
            <p>
              <a href="/authority.crt" className="underline">
                Download the certificate of the shop’s authority
              </a>{" "}
              and install it. The shop’s computer says where. Its SHA-256 fingerprint must be:
            </p>
            <code className="figures break-all">{fingerprint}</code>
          </section>
        )}
      </>
    )}
  </main>
);

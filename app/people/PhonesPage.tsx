import { useEffect } from "react";
import { Form, Link, useRevalidator } from "react-router";
import type { PhonesData, ScannedPicture } from "../network/phonesView.server";
import { Rail } from "../shell/Rail";
import { PeopleSection } from "./PeopleSection";
import type { PeopleData } from "./peopleView.server";

interface PhonesPageProps {
  readonly view: PhonesData;
  readonly people: PeopleData;
  readonly problem: string | null;
}

/** Says who works in the shop, opens Airway to its network, and pairs phones and tablets with it. */
export const PhonesPage = ({ view, people, problem }: PhonesPageProps) => (
  <div className="flex min-h-screen max-md:flex-col">
    <Rail />
    <main
      id="main"
      className="mx-auto grid w-full max-w-4xl min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-4 p-5"
    >
      <header>
        <h1 className="text-2xl font-bold">Phones and people</h1>
        <p className="text-base text-soft">
          Work on the same jobs from the footwell. What is sent between this computer and a phone is
          encrypted, and only devices that were paired here can connect. Rates, backups, imports and this page
          stay on this computer, for owners.
        </p>
      </header>
      {problem && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          {problem}
        </p>
      )}
      <PeopleSection view={people} />
      <Opening view={view} mayOpen={people.people.length > 0} />
      {view.isOpen && <Pairing view={view} />}
      <Devices devices={view.devices} />
      {view.fingerprint && <Trusting fingerprint={view.fingerprint} />}
    </main>
  </div>
);

const Opening = ({ view: { isOpen, addresses }, mayOpen }: { view: PhonesData; mayOpen: boolean }) => (
  <section aria-labelledby="opening" className="sheet-card grid gap-2 p-4">
    <h2 id="opening" className="font-bold">
      {isOpen ? "Open to the shop’s network" : "Closed: only this computer can use Airway"}
    </h2>
    {isOpen && (
      <ul aria-label="Addresses" className="flex flex-wrap gap-x-6 text-base">
        {addresses.map((address) => (
          <li key={address} className="figures break-all">
            {address}
          </li>
        ))}
      </ul>
    )}
    {!isOpen && !mayOpen && (
      <p className="text-base text-soft">Add yourself above first: on the network everybody signs in.</p>
    )}
    <Form method="post">
      <button
        type="submit"
        name="intent"
        value={isOpen ? "close" : "open"}
        disabled={!isOpen && !mayOpen}
        className={isOpen || !mayOpen ? "btn" : "btn btn-main"}
      >
        {isOpen ? "Close it" : "Open Airway to the shop’s network"}
      </button>
    </Form>
  </section>
);

/** Milliseconds between two questions whether the device with the code has paired. */
const askMilliseconds = 2000;

function Pairing({ view: { code } }: { view: PhonesData }) {
  const { revalidate } = useRevalidator();
  const isWaiting = code !== null;
  useEffect(() => {
    if (!isWaiting) return;
    const timer = setInterval(() => void revalidate(), askMilliseconds);
    return () => clearInterval(timer);
  }, [isWaiting, revalidate]);
  return (
    <section aria-labelledby="pairing" className="sheet-card grid gap-3 p-4" aria-live="polite">
      <h2 id="pairing" className="font-bold">
        Pair a phone or tablet
      </h2>
      {code ? (
        <div className="flex flex-wrap items-start gap-6">
          <div className="grid gap-2">
            <Scanned picture={code.picture} />
            {code.byNumber && (
              <details className="text-base">
                <summary className="flex min-h-11 cursor-pointer items-center underline">
                  The device does not find it
                </summary>
                <Scanned picture={code.byNumber} />
              </details>
            )}
          </div>
          <div className="grid max-w-sm gap-2">
            <p>Scan this with the camera of the device, or open an address above on it and type the code.</p>
            <p className="figures text-3xl font-bold tracking-widest" data-pairing-code={code.code}>
              {code.code.slice(0, 4)} {code.code.slice(4)}
            </p>
            <p className="text-base text-soft">
              It works once, within {code.minutes} {code.minutes === 1 ? "minute" : "minutes"}. The device
              first warns that it does not know this computer: see “When a device warns” below.
            </p>
            <Form method="post" className="flex flex-wrap gap-2">
              <button type="submit" name="intent" value="code" className="btn">
                New code
              </button>
              <button type="submit" name="intent" value="end-code" className="btn">
                Take the code back
              </button>
            </Form>
          </div>
        </div>
      ) : (
        <Form method="post">
          <button type="submit" name="intent" value="code" className="btn btn-main">
            Make a code for one device
          </button>
        </Form>
      )}
    </section>
  );
}

/** The squares are dark on light in every theme, or cameras do not read them. */
const Scanned = ({ picture: { path, size } }: { picture: ScannedPicture }) => (
  <svg
    viewBox={`0 0 ${size} ${size}`}
    role="img"
    aria-label="Code to scan with the camera of the device"
    shapeRendering="crispEdges"
    className="w-56 max-w-full"
  >
    <rect width={size} height={size} fill="white" />
    <path d={path} fill="black" />
  </svg>
);

const Devices = ({ devices }: Pick<PhonesData, "devices">) => (
  <section aria-labelledby="devices" className="sheet-card grid gap-2 p-4">
    <h2 id="devices" className="font-bold">
      Paired devices
    </h2>
    {devices.length === 0 ? (
      <p className="text-base text-soft">None so far.</p>
    ) : (
      <ul>
        {devices.map(({ id, name, paired, seen }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 border-t border-rule py-1">
            <span className="grow font-semibold">{name}</span>
            <span className="text-base text-soft">
              paired {paired}, last used {seen}
            </span>
            <Form method="post">
              <input type="hidden" name="device" value={id} />
              <button
                type="submit"
                name="intent"
                value="remove"
                className="btn"
                aria-label={`Remove ${name}`}
              >
                Remove
              </button>
            </Form>
          </li>
        ))}
      </ul>
    )}
  </section>
);

const Trusting = ({ fingerprint }: { fingerprint: string }) => (
  <section aria-labelledby="trusting" className="sheet-card grid gap-2 p-4 text-base">
    <h2 id="trusting" className="font-bold">
      When a device warns
    </h2>
    <p>
      This computer proves who it is with a certificate that its own authority signed. A device does not know
      that authority until you install it there. Until then it warns, and you can go on past the warning.
    </p>
    <ol className="list-decimal pl-5">
      <li>
        On the device, go past the warning, and open <code>/authority.crt</code> at the address above. It
        downloads the authority’s certificate.
      </li>
      <li>
        Compare its SHA-256 fingerprint with this one. If they differ, somebody is in between: do not install
        it.
        <code className="figures block break-all">{fingerprint}</code>
      </li>
      <li>
        Android: <i>Settings, Security, Encryption and credentials, Install a certificate, CA certificate</i>.
        The words differ a little from maker to maker.
      </li>
      <li>
        iPhone and iPad: <i>Settings, Profile downloaded, Install</i>, then switch it on under{" "}
        <i>General, About, Certificate trust settings</i>.
      </li>
    </ol>
    <p>
      <Link to="/authority.crt" reloadDocument className="underline">
        Download the authority’s certificate here
      </Link>
    </p>
  </section>
);

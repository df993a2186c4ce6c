import { Link, useLocation } from "react-router";
import { useSignedIn } from "../shell/signedIn";
import { useQueue } from "./browserQueue";

/** Why entries wait on this device, and what stores them. */
export function WhyWaiting() {
  const { signedOut, waiting } = useQueue();
  const { pathname } = useLocation();
  if (!signedOut)
    return (
      <>
        The server does not answer. What you enter is kept on this device and stored when the server is back.
      </>
    );
  const name = waiting[0]?.by?.name;
  return (
    <>
      {name ? `${name} is signed out.` : "Nobody is signed in."} What you enter is kept on this device
      {name && ` under the name ${name}`} and stored once {name ?? "somebody"} signs in again.{" "}
      <Link to={`/sign-in?${new URLSearchParams({ to: pathname })}`} reloadDocument className="underline">
        Sign in
      </Link>
    </>
  );
}

/** Entries of people who have signed out on this device before they were stored. */
export function WaitingForOthers() {
  const { ofOthers } = useQueue();
  const { people } = useSignedIn();
  const names = [...new Set(ofOthers.flatMap(({ by }) => by?.name ?? []))];
  return names.map((name) => {
    const own = ofOthers.filter(({ by }) => by?.name === name);
    const count = own.length;
    const isRemoved = people.length > 0 && own.every(({ by }) => !people.includes(by?.id ?? ""));
    return (
      <p key={name} className="mt-1 border-l-4 border-[var(--go)] pl-2 text-base">
        {count === 1 ? "One entry" : `${count} entries`} of {name} {count === 1 ? "waits" : "wait"} on this
        device until {name} signs in here.
        {isRemoved &&
          ` ${name} is no longer listed under Phones and people. An owner can add ${name} there again, under the same name.`}
      </p>
    );
  });
}

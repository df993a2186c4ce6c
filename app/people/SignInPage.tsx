import type { Person } from "@db/people/person";
import { Form, Link } from "react-router";

interface SignInPageProps {
  readonly people: readonly Person[];
  /** Who is signed in here now; null if nobody is. */
  readonly me: Person | null;
  /** The device, in words. */
  readonly place: string;
  /** The page to go on to. */
  readonly to: string;
  /** Who was chosen before; empty at first. */
  readonly chosen: string;
  readonly problem: string | null;
}

/** Where somebody says who they are, on a device that several people use. */
export const SignInPage = ({ people, me, place, to, chosen, problem }: SignInPageProps) => (
  <main id="main" className="mx-auto grid w-full max-w-xl content-start gap-4 p-5">
    <h1 className="text-2xl font-bold">{me ? `Signed in as ${me.name}` : "Sign in"}</h1>
    {me && (
      <div className="flex flex-wrap items-center gap-3">
        <Link to={to} className="btn btn-main">
          Go on as {me.name}
        </Link>
        <Form method="post" reloadDocument>
          <input type="hidden" name="to" value={to} />
          <button type="submit" name="intent" value="out" className="btn">
            Sign out
          </button>
        </Form>
      </div>
    )}
    {problem && (
      <p role="alert" id="pin-problem" className="border-l-4 border-danger pl-3">
        {problem}
      </p>
    )}
    {people.length === 0 ? (
      <p>
        Nobody is listed yet. On the shop’s computer, open <b>Settings</b>, then <b>Phones and people</b>, and
        say who works here.
      </p>
    ) : (
      <Form method="post" reloadDocument className="sheet-card grid gap-3 p-4">
        <input type="hidden" name="to" value={to} />
        <fieldset className="grid gap-2 sm:grid-cols-2">
          <legend className="mb-2 font-bold">{me ? "Somebody else" : "Your name"}</legend>
          {people
            .filter(({ id }) => id !== me?.id)
            .map(({ id, name, role }) => (
              <label
                key={id}
                className="flex min-h-12 cursor-pointer items-center gap-3 border border-edge px-3 has-checked:bg-paper has-checked:font-bold"
              >
                <input
                  type="radio"
                  name="person"
                  value={id}
                  required
                  defaultChecked={id === chosen || people.length === 1}
                  className="size-5 accent-ink"
                />
                <span className="min-w-0 grow break-words">{name}</span>
                <span className="text-base font-normal text-soft">{role}</span>
              </label>
            ))}
        </fieldset>
        <label className="grid gap-0.5">
          PIN
          <input
            name="pin"
            type="password"
            autoComplete="off"
            required
            maxLength={64}
            aria-describedby={problem ? "pin-problem" : undefined}
            className="field figures text-xl tracking-widest"
          />
        </label>
        <button type="submit" name="intent" value="in" className="btn btn-main justify-self-start">
          Sign in
        </button>
      </Form>
    )}
    <p className="text-base text-soft">
      This is {place}. After four hours without use, whoever is signed in is signed out. If you forgot your
      PIN, an owner gives you a new one.
    </p>
  </main>
);

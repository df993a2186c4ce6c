import { leastPin, roles } from "@db/people/person";
import { Form } from "react-router";
import { Fold } from "../ui/Fold";
import type { PeopleData } from "./peopleView.server";

/** Who works in the shop: adding, new PINs, removing; and who signed in last. */
export const PeopleSection = ({ view }: { view: PeopleData }) => (
  <section aria-labelledby="people" className="sheet-card grid gap-3 p-4">
    <div>
      <h2 id="people" className="font-bold">
        People
      </h2>
      <p className="text-base text-soft">
        {view.people.length === 0
          ? "Add the people who work here, and every reading will carry a name. Start with yourself, as the owner. On phones and tablets everybody signs in with a PIN."
          : view.people.length === 1
            ? "With only one person, this computer does not ask for a PIN. Phones and tablets always do."
            : "Everybody signs in, here and on phones and tablets. Only owners see rates, backups and this page."}
      </p>
    </div>
    {view.people.length > 0 && (
      <ul>
        {view.people.map(({ id, name, role }) => (
          <li key={id} className="border-t border-rule py-1">
            <div className="flex flex-wrap items-center gap-x-4">
              <span className="min-w-0 grow font-semibold break-words">{name}</span>
              <span className="text-base text-soft">{role}</span>
              <Form method="post" className="flex flex-wrap gap-2">
                <input type="hidden" name="person" value={id} />
                <button
                  type="submit"
                  name="intent"
                  value="sign-out-everywhere"
                  className="btn"
                  aria-label={`Sign ${name} out everywhere`}
                >
                  Sign out everywhere
                </button>
                <button
                  type="submit"
                  name="intent"
                  value="remove-person"
                  className="btn"
                  aria-label={`Remove ${name}`}
                  onClick={(event) => {
                    if (!window.confirm(`Remove ${name}? What ${name} did keeps the name.`))
                      event.preventDefault();
                  }}
                >
                  Remove
                </button>
              </Form>
            </div>
            <Fold title={`New PIN for ${name}`}>
              <Form method="post" className="flex flex-wrap items-end gap-2 pb-2">
                <input type="hidden" name="person" value={id} />
                <label className="grid gap-0.5 text-base">
                  New PIN, at least {leastPin[role]} characters
                  <input
                    name="pin"
                    type="password"
                    autoComplete="new-password"
                    required
                    minLength={leastPin[role]}
                    maxLength={64}
                    className="field"
                  />
                </label>
                <button type="submit" name="intent" value="new-pin" className="btn">
                  Save
                </button>
              </Form>
            </Fold>
          </li>
        ))}
      </ul>
    )}
    <Adding first={view.people.length === 0} key={view.people.length} />
    {view.signIns.length > 0 && (
      <Fold title="Who signed in last">
        <ol className="text-base">
          {view.signIns.map(({ id, when, words }) => (
            <li key={id} className="grid gap-x-4 border-t border-rule py-1 sm:grid-cols-[13rem_1fr]">
              <span className="figures text-soft">{when}</span>
              <span>{words}</span>
            </li>
          ))}
        </ol>
      </Fold>
    )}
  </section>
);

/** Adds somebody; the first one is an owner. */
const Adding = ({ first }: { first: boolean }) => (
  <Form method="post" className="flex flex-wrap items-end gap-3 border-t border-rule pt-3">
    <label className="grid gap-0.5 text-base">
      Name
      <input name="name" autoComplete="off" required maxLength={40} className="field" />
    </label>
    {first ? (
      <input type="hidden" name="role" value="owner" />
    ) : (
      <label className="grid gap-0.5 text-base">
        Role
        <select name="role" defaultValue="technician" className="field">
          {roles.map((role) => (
            <option key={role} value={role}>
              {role}
            </option>
          ))}
        </select>
      </label>
    )}
    <label className="grid gap-0.5 text-base">
      {first
        ? `PIN, at least ${leastPin.owner} characters`
        : `PIN, at least ${leastPin.technician} characters; ${leastPin.owner} for an owner`}
      <input
        name="pin"
        type="password"
        autoComplete="new-password"
        required
        minLength={leastPin.technician}
        maxLength={64}
        className="field"
      />
    </label>
    <button type="submit" name="intent" value="add-person" className={first ? "btn btn-main" : "btn"}>
      {first ? "Add yourself as the owner" : "Add"}
    </button>
  </Form>
);

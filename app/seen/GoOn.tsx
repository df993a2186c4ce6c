import { percent } from "@core/units/wording";
import { Form, useNavigation } from "react-router";
import { Fold } from "../ui/Fold";
import type { SeenFindings, seenJobView } from "./seenJobView.server";

interface GoOnProps {
  readonly view: Pick<Awaited<ReturnType<typeof seenJobView>>, "token" | "label" | "circuits">;
  readonly findings: SeenFindings;
}

/** The ways on: as a job with the likeliest wiring as its circuit, or with a circuit of the shelf. */
export function GoOn({ view, findings }: GoOnProps) {
  const { state, wirings } = findings.diagnosis;
  const busy = useNavigation().state !== "idle";
  const [likeliest] = wirings;
  return (
    <>
      <Fold
        key={state}
        title={state === "open" ? "Go on without another test" : "Go on with the repair"}
        className="sheet-card px-3"
        initially={state !== "open"}
      >
        <Form method="post" className="grid gap-3 pb-3">
          <p className="text-base">
            The job goes on with the likeliest wiring as its circuit: {likeliest?.title}{" "}
            <span className="figures">({percent(likeliest?.p ?? 0)})</span>. Its values, colours and places
            stay assumed, and your readings carry over.
          </p>
          <NameFields view={view} />
          <button
            type="submit"
            name="intent"
            value="go-on"
            className={`btn justify-self-start ${state === "open" ? "" : "btn-main"}`}
            disabled={busy}
            aria-busy={busy}
          >
            {busy ? "Working out the circuit…" : "Go on with this circuit"}
          </button>
        </Form>
      </Fold>
      {view.circuits.length > 0 && (
        <Fold title="The diagram was found" className="sheet-card px-3">
          <Form method="post" className="grid gap-3 pb-3">
            <p className="text-base">
              Trace or import it first if it is not on the shelf. The job goes on with it, and your readings
              carry over by what each letter stands for.
            </p>
            <label className="grid gap-1 text-base">
              Blower circuit
              <select name="circuitId" required defaultValue="" className="field w-full">
                <option value="" disabled>
                  choose
                </option>
                {view.circuits.map(({ id, title }) => (
                  <option key={id} value={id}>
                    {title}
                  </option>
                ))}
              </select>
            </label>
            <NameFields view={view} />
            <button
              type="submit"
              name="intent"
              value="diagram"
              className="btn justify-self-start"
              disabled={busy}
              aria-busy={busy}
            >
              Go on with this diagram
            </button>
          </Form>
        </Fold>
      )}
    </>
  );
}

const NameFields = ({ view }: Pick<GoOnProps, "view">) => (
  <div className="grid gap-3 sm:grid-cols-2">
    <input type="hidden" name="token" value={view.token} />
    <label className="grid gap-1 text-base">
      Nickname or fleet number
      <input name="label" maxLength={60} defaultValue={view.label} className="field w-full" />
    </label>
    <label className="grid gap-1 text-base">
      Make and model
      <input name="model" maxLength={60} className="field w-full" />
    </label>
  </div>
);

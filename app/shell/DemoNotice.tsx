import { useFetcher } from "react-router";
import { OwnPin } from "./OwnPin";
import { useSignedIn } from "./signedIn";

/** Tells the user that this is the demo workshop, with a button to remove it. */
export function DemoNotice({ shop }: { shop: string }) {
  const { Form, state, data } = useFetcher<{ readonly problem?: string }>();
  const { me } = useSignedIn();
  const remove = (
    <button
      type="submit"
      name="intent"
      value="remove"
      className={me ? "btn" : "min-h-11 underline"}
      disabled={state !== "idle"}
      onClick={(event) => {
        if (!window.confirm(removalWords)) event.preventDefault();
      }}
    >
      {me ? "Remove it" : "Remove the demo"}
    </button>
  );
  return (
    <Form
      method="post"
      action="/demo"
      className="flex flex-wrap items-baseline gap-x-3 border-l-4 border-edge pl-3 text-base text-soft"
    >
      <p className="min-w-0 grow">This is the demo: {shop}, its jobs and its vehicles are invented.</p>
      {me ? (
        <details>
          <summary className="min-h-11 content-center underline">Remove the demo</summary>
          <div className="flex flex-wrap items-end gap-3 pb-2">
            <OwnPin />
            {remove}
          </div>
        </details>
      ) : (
        remove
      )}
      {data?.problem && (
        <p role="alert" className="w-full text-danger">
          Not removed. {data.problem}
        </p>
      )}
    </Form>
  );
}

const removalWords =
  "Remove the demo's jobs with everything entered on them, its vehicles, circuits, access steps and parts? Your own jobs stay, with the circuits they need. A backup is made first.";

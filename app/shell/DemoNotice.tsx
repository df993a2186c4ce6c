import { useFetcher } from "react-router";
import { OwnPin } from "./OwnPin";

/** Tells the user that this is the demo workshop, with a button to remove it. */
export function DemoNotice({ shop }: { shop: string }) {
  const { Form, state, data } = useFetcher<{ readonly problem?: string }>();
  return (
    <Form
      method="post"
      action="/demo"
      className="flex flex-wrap items-center gap-x-3 border-l-4 border-edge pl-3 text-base text-soft"
    >
      <p className="min-w-0 grow">This is the demo: {shop}, its jobs and its vehicles are invented.</p>
      <OwnPin />
      <button
        type="submit"
        name="intent"
        value="remove"
        className="min-h-11 underline"
        disabled={state !== "idle"}
        onClick={(event) => {
          if (!window.confirm(removalWords)) event.preventDefault();
        }}
      >
        Remove the demo
      </button>
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

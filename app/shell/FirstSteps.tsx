import { Form, Link } from "react-router";

/** What to do first in a shop that has no circuit yet. */
export const FirstSteps = () => (
  <section aria-labelledby="first-steps" className="tag-card mt-4 max-w-3xl">
    <div className="tag-face grid gap-3">
      <h2 id="first-steps" className="pr-8 text-xl font-bold">
        Nothing here yet
      </h2>
      <p>
        Trace a blower circuit from its wiring diagram, or import a file. A vehicle whose diagram you do not
        have can be tested without one.
      </p>
      <div className="flex flex-wrap gap-3">
        <Link to="/trace" className="btn btn-main">
          Trace a circuit
        </Link>
        <Link to="/bring-in" className="btn">
          Import a circuit or a job
        </Link>
        <Link to="/jobs/no-diagram" className="btn">
          Start a job without a diagram
        </Link>
        <Form method="post" action="/demo">
          <button type="submit" name="intent" value="load" className="btn">
            Load the demo workshop: jobs and practice cases to try
          </button>
        </Form>
      </div>
    </div>
  </section>
);

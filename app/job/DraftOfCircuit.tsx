import { Form } from "react-router";

/** Begins a draft from the circuit that was worked out on a vehicle without a diagram. */
export const DraftOfCircuit = ({ jobId }: { jobId: number }) => (
  <Form method="post" action={`/jobs/${jobId}/draft`} className="no-print">
    <button type="submit" className="btn">
      Put its circuit on the shelf as a draft
    </button>
  </Form>
);

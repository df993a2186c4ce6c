import { Form } from "react-router";
import type { RepairPageData } from "./repairView.server";
import { TemplateButtons } from "./TemplateButtons";
import { WhereIsIt } from "./WhereIsIt";

/** A vehicle without a plan: where the motor may be, and a plan to start from. */
export function NoPlan({ page }: { page: RepairPageData }) {
  return (
    <main id="main" className="grid w-full max-w-3xl content-start gap-4 p-5">
      <section className="tag-card" aria-labelledby="no-plan">
        <div className="tag-face">
          <h2 id="no-plan" className="pr-8 text-xl font-bold">
            There is no access plan for this vehicle yet
          </h2>
          <p className="mt-1">
            Start from the closest template. You can change every step, and the next person can use it.
          </p>
          <Form method="post" className="mt-3 grid gap-2">
            <input type="hidden" name="intent" value="begin" />
            <TemplateButtons templates={page.templates} />
          </Form>
        </div>
      </section>
      <section aria-labelledby="where" className="sheet-card p-4 text-base">
        <h2 id="where" className="mb-2 font-bold">
          Where is the blower motor?
        </h2>
        <WhereIsIt where={page.where} />
      </section>
    </main>
  );
}

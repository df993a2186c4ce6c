import { placeSigns } from "@core/access/whereIsIt";
import { percent } from "@core/units/wording";
import { findingTheMotor, motorPlaceWords, placeSignWords } from "@words/motorPlaceWords";
import { Form, useSubmit } from "react-router";
import type { RepairPageData } from "./repairView.server";

/** Finding the motor on a vehicle nobody here has seen: tick what you notice, and the places are weighed. */
export function WhereIsIt({ where }: { where: RepairPageData["where"] }) {
  const submit = useSubmit();
  return (
    <div className="grid gap-3">
      <ol className="list-decimal pl-5">
        {findingTheMotor.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ol>
      <Form
        method="get"
        preventScrollReset
        onChange={(event) => void submit(event.currentTarget, { replace: true, preventScrollReset: true })}
      >
        <fieldset>
          <legend className="font-semibold">What you notice</legend>
          {placeSigns.map(({ id }) => (
            <label key={id} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                name="sign"
                value={id}
                defaultChecked={where.signs.includes(id)}
                className="size-5 shrink-0"
              />
              {placeSignWords[id]}
            </label>
          ))}
        </fieldset>
      </Form>
      <ul className="grid gap-1">
        {where.odds.map(({ id, p }) => (
          <li key={id}>
            <span className="figures font-semibold">{percent(p)}</span> {motorPlaceWords[id].title}
            <span className="doubt-bar block" style={{ width: `${Math.max(1, p * 100)}%` }} />
            <span className="text-soft">{motorPlaceWords[id].reach}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

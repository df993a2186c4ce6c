interface FitLineProps {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly done: boolean;
  /** True for the step to do now. */
  readonly next: boolean;
  readonly beside?: React.ReactNode;
  readonly controls: React.ReactNode;
  readonly children: React.ReactNode;
}

/** One row of a route: the step at the left, its ticks at the right, the next one marked. */
export function RepairLine({ id, number, title, done, next, beside, controls, children }: FitLineProps) {
  return (
    <li
      data-step={id}
      className={`grid gap-x-3 border-t border-rule py-1.5 sm:grid-cols-[1fr_auto] ${next ? "border-l-4 border-l-feed pl-2" : "pl-3"}`}
    >
      <div className="min-w-0">
        <p className={done ? "text-soft" : "font-semibold"}>
          <span className="figures">{number}.</span> {title} {beside}
        </p>
        {children}
      </div>
      <div className="flex flex-wrap items-center justify-end gap-2">{controls}</div>
    </li>
  );
}

/** The cautions of this step, shown only here. */
export const StepCautions = ({ cautions }: { cautions: readonly string[] }) =>
  cautions.map((words) => (
    <p key={words} className="border-l-4 border-danger pl-2 text-base">
      {words}
    </p>
  ));

import type { AccessPlan } from "@core/access/plan";
import { minutesText } from "@core/units/wording";
import type { PlanLayout } from "./accessPlanLayout";

interface PlanGraphProps {
  readonly plan: AccessPlan;
  readonly layout: PlanLayout;
  /** Steps of the route shown. */
  readonly lit: ReadonlySet<string>;
}

const wayLetters = "abcdefghijklmnopqrst";
const mostLetters = 26;

const cut = (text: string): string =>
  text.length > mostLetters ? `${text.slice(0, mostLetters - 1)}…` : text;

/**
 * What covers what, from the outside in. A line means "before"; lines with the same letter are needed together, other
 * letters are other ways.
 */
export function PlanGraph({ plan, layout, lit }: PlanGraphProps) {
  const titleOf = new Map(plan.steps.map((step) => [step.id, step]));
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1)
    <section className="max-h-[34rem] overflow-auto bg-bench" tabIndex={0} aria-label="What covers what">
      <svg
        role="img"
        aria-label={`What covers what, ${plan.steps.length} steps; all of them are listed beside the drawing`}
        width={layout.width}
        height={layout.height}
        viewBox={`0 0 ${layout.width} ${layout.height}`}
        className="mx-auto block"
      >
        {layout.lines.map(({ id, corners, way }) => {
          const middle = corners[Math.floor(corners.length / 2)];
          const before = corners[Math.floor(corners.length / 2) - 1];
          return <CoverLine key={id} corners={corners} way={way} middle={middle} before={before} />;
        })}
        {layout.boxes.map(({ id, kind, x, y, width, height }) => {
          const step = titleOf.get(id);
          const on = kind === "part" || lit.has(id);
          return (
            <StepBox
              key={`${kind} ${id}`}
              kind={kind}
              id={id}
              x={x}
              y={y}
              width={width}
              height={height}
              on={on}
              step={step}
            />
          );
        })}
      </svg>
    </section>
  );
}

type Corner = PlanLayout["lines"][number]["corners"][number];

interface CoverLineProps {
  readonly corners: readonly Corner[];
  readonly way: number | null;
  readonly middle: Corner | undefined;
  readonly before: Corner | undefined;
}

/** A line from a step to what it uncovers. */
function CoverLine({ corners, way, middle, before }: CoverLineProps) {
  return (
    <g>
      <polyline
        points={corners.map(({ x, y }) => `${x},${y}`).join(" ")}
        className="fill-none stroke-ink"
        strokeWidth={1.4}
        strokeDasharray={way === null ? undefined : "7 4"}
      />
      {way !== null && middle && before && (
        <text
          x={(middle.x + before.x) / 2 + 5}
          y={(middle.y + before.y) / 2}
          className="fill-ink text-[15px] font-semibold"
        >
          {wayLetters[way]}
        </text>
      )}
    </g>
  );
}

interface StepBoxProps {
  readonly kind: "part" | "step";
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly on: boolean;
  readonly step: AccessPlan["steps"][number] | undefined;
}

/** One step. */
function StepBox({ kind, id, x, y, width, height, on, step }: StepBoxProps) {
  return (
    <g transform={`translate(${x} ${y})`}>
      {kind === "part" ? (
        <path
          d={`M0 0H${width - 14}L${width} 14V${height}H0Z`}
          className="fill-ink stroke-ink"
          strokeWidth={1.5}
        />
      ) : (
        <rect
          width={width}
          height={height}
          rx={3}
          className={`fill-card ${on ? "stroke-feed" : "stroke-ink"}`}
          strokeWidth={on ? 3 : 1.2}
          strokeDasharray={step?.way === "short-cut" ? "2 3" : undefined}
        />
      )}
      {step && kind === "step" ? (
        <>
          <title>{step.title}</title>
          <text x={9} y={24} className="fill-ink text-[15px]">
            {cut(step.title)}
          </text>
          <text x={9} y={47} className="fill-soft text-[14px]">
            {minutesText(step.minutes)}
            {step.way ? ` · ${step.way === "book" ? "book time" : step.way.replace("-", " ")}` : ""}
          </text>
        </>
      ) : (
        <text x={12} y={26} className="fill-paper text-[17px] font-bold">
          {id}
        </text>
      )}
    </g>
  );
}

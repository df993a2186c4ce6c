import { Tabs } from "radix-ui";
import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import { Link } from "react-router";
import { Fold } from "../ui/Fold";
import { Besides } from "./Besides";
import { BackLine } from "./RefittingLine";
import { RouteChoice } from "./RouteChoice";
import type { RepairData, RepairPageData } from "./repairView.server";
import { StepLine } from "./StepLine";
import { TickButton } from "./TickButton";
import { TrayCard } from "./TrayCard";
import { TicksProvider } from "./useTicks";
import { WhereIsIt } from "./WhereIsIt";

interface RepairPageProps {
  readonly jobId: number;
  readonly shelfId: string;
  readonly fit: RepairData;
  readonly where: RepairPageData["where"];
}

/** Removal and refitting side by side with the tray: one row for each step, ticked with one thumb. */
export function RepairPage({ jobId, shelfId, fit, where }: RepairPageProps) {
  const allOff = fit.steps.length > 0 && fit.steps.every(({ tick }) => tick);
  const [way, setWay] = useState<"in" | "back">(allOff ? "back" : "in");
  // Screws counted by hand if they differ from the plan; the phone's button and the row share the number.
  const [counts, setCounts] = useState<Readonly<Record<string, number>>>({});
  const counted = (own: "in" | "back", step: { readonly id: string; readonly screws: number }) => ({
    screws: counts[`${own} ${step.id}`] ?? step.screws,
    onScrews: (screws: number) => setCounts({ ...counts, [`${own} ${step.id}`]: screws }),
  });
  const nextIn = fit.steps.find(({ tick }) => !tick);
  const nextBack = fit.back.find(({ tick, off }) => !tick && off);
  return (
    <main
      id="main"
      className="grid w-full max-w-7xl content-start items-start gap-4 px-5 py-3 max-md:px-3 max-md:pb-24 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
    >
      <div className="grid min-w-0 gap-3">
        <RouteChoice fit={fit} />
        {fit.unreached.length > 0 && (
          <p className="border-l-4 border-feed pl-3 text-base">
            The access plan does not reach {fit.unreached.join(", ")}:{" "}
            <Link to={`/shelf/${shelfId}/way`} className="underline">
              add the steps
            </Link>
            .
          </p>
        )}
        {fit.problem && (
          <p role="alert" className="border-l-4 border-danger pl-3">
            {fit.problem}. Choose another route, or change <Link to={`/shelf/${shelfId}/way`}>the plan</Link>.
          </p>
        )}
        {fit.targets.length === 0 && fit.steps.length === 0 ? (
          <p className="sheet-card p-4">
            Choose the parts to remove above. The order of steps follows from that.
          </p>
        ) : (
          <TicksProvider jobId={jobId}>
            <RepairSteps
              way={way}
              setWay={setWay}
              fit={fit}
              nextIn={nextIn}
              counted={counted}
              nextBack={nextBack}
            />
          </TicksProvider>
        )}
      </div>
      <LayOut fit={fit} where={where} shelfId={shelfId} />
    </main>
  );
}

function Count({ of }: { of: readonly { readonly tick: unknown; readonly off?: boolean }[] }) {
  return (
    <span className="figures">
      {of.filter(({ tick }) => tick).length}/{of.length}
    </span>
  );
}

const Screws = ({ count }: { count: number }) =>
  count > 0 && (
    <span className="font-normal">
      {" "}
      · <span className="figures">{count}</span> {count === 1 ? "screw" : "screws"}
    </span>
  );

/** Within reach of a thumb on a phone: the next step, above the rail. */
const Thumb = ({ children }: { children: React.ReactNode }) => (
  <div className="fixed inset-x-0 bottom-[var(--rail)] z-10 border-t border-rule bg-paper p-2 md:hidden">
    {children}
  </div>
);

interface RepairStepsProps {
  readonly way: "in" | "back";
  readonly setWay: Dispatch<SetStateAction<"in" | "back">>;
  readonly fit: RepairPageProps["fit"];
  readonly nextIn: RepairData["steps"][number] | undefined;
  readonly counted: (
    own: "in" | "back",
    step: { readonly id: string; readonly screws: number },
  ) => { screws: number; onScrews: (screws: number) => void };
  readonly nextBack: RepairData["back"][number] | undefined;
}

/** The steps of removal and refitting, each with its ticks. */
function RepairSteps({ way, setWay, fit, nextIn, counted, nextBack }: RepairStepsProps) {
  return (
    <Tabs.Root value={way} onValueChange={(value) => setWay(value === "back" ? "back" : "in")}>
      <Tabs.List aria-label="Removal or refitting" className="flex gap-2">
        <Tabs.Trigger value="in" className="btn data-[state=active]:bg-ink data-[state=active]:text-paper">
          Removal <Count of={fit.steps} />
        </Tabs.Trigger>
        <Tabs.Trigger value="back" className="btn data-[state=active]:bg-ink data-[state=active]:text-paper">
          Refitting <Count of={fit.back} />
        </Tabs.Trigger>
      </Tabs.List>
      <StepsIn fit={fit} nextIn={nextIn} counted={counted} setWay={setWay} />
      <StepsBack fit={fit} nextBack={nextBack} counted={counted} />
    </Tabs.Root>
  );
}

interface LayOutProps {
  readonly fit: RepairPageProps["fit"];
  readonly where: RepairPageProps["where"];
  readonly shelfId: RepairPageProps["shelfId"];
}

/** Tools, parts and the tray. */
function LayOut({ fit, where, shelfId }: LayOutProps) {
  return (
    <aside className="grid min-w-0 gap-3">
      <TrayCard tray={fit.tray} />
      <section aria-labelledby="tools" className="sheet-card p-3 text-base">
        <h2 id="tools" className="font-bold">
          Tools needed
        </h2>
        <ToolList fit={fit} />
        {!fit.batteryOff && fit.steps.length > 0 && (
          <p className="mt-2">
            <b>Battery:</b> no step here cuts, splices or moves it. Disconnecting the negative is still the
            safer habit, and a must near airbag plugs or a bare positive.
          </p>
        )}
        {fit.opens.length > 0 && (
          <p className="mt-2">
            <b>Parts you can test while it is open:</b> {fit.opens.join(", ")}.
          </p>
        )}
      </section>
      <Besides fit={fit} />
      <section className="sheet-card px-3 py-1 text-base">
        <Fold title="Where is the blower motor?">
          {fit.where && <p className="mb-2 font-semibold">{fit.where}</p>}
          <WhereIsIt where={where} />
        </Fold>
      </section>
      <p className="text-base text-soft">
        {fit.title}.{" "}
        <Link to={`/shelf/${shelfId}/way`} className="underline">
          Change the plan
        </Link>
        .{" "}
        {fit.pace.measured > 0 &&
          `This shop takes ${fit.pace.times.toFixed(2)} times the planned minutes (${fit.pace.measured} measured ${
            fit.pace.measured === 1 ? "step" : "steps"
          }). `}
        The maker's procedure and local rules come first. Airbags and refrigerant are for licensed people.
      </p>
    </aside>
  );
}

interface StepsInProps {
  readonly fit: RepairStepsProps["fit"];
  readonly nextIn: RepairStepsProps["nextIn"];
  readonly counted: RepairStepsProps["counted"];
  readonly setWay: RepairStepsProps["setWay"];
}

/** The removal steps. */
function StepsIn({ fit, nextIn, counted, setWay }: StepsInProps) {
  return (
    <Tabs.Content value="in">
      <ol className="mt-2 border-b border-rule" data-way="in">
        {fit.steps.map((step, index) => (
          <StepLine
            key={step.id}
            step={step}
            number={index + 1}
            next={step === nextIn}
            {...counted("in", step)}
          />
        ))}
      </ol>
      <Thumb>
        {nextIn ? (
          <TickButton step={nextIn.id} way="in" screws={counted("in", nextIn).screws} main>
            {nextIn.title}
            <Screws count={counted("in", nextIn).screws} />
          </TickButton>
        ) : (
          <button type="button" className="btn btn-main w-full" onClick={() => setWay("back")}>
            Everything is off. Go to refitting
          </button>
        )}
      </Thumb>
    </Tabs.Content>
  );
}

interface StepsBackProps {
  readonly fit: RepairStepsProps["fit"];
  readonly nextBack: RepairStepsProps["nextBack"];
  readonly counted: RepairStepsProps["counted"];
}

/** The refitting steps. */
function StepsBack({ fit, nextBack, counted }: StepsBackProps) {
  return (
    <Tabs.Content value="back">
      <ol className="mt-2 border-b border-rule" data-way="back">
        {fit.back.map((step, index) => (
          <BackLine
            key={step.id}
            step={step}
            number={index + 1}
            next={step === nextBack}
            {...counted("back", step)}
          />
        ))}
      </ol>
      <Thumb>
        {nextBack ? (
          <TickButton step={nextBack.id} way="back" screws={counted("back", nextBack).screws} main>
            {nextBack.title}
            <Screws count={counted("back", nextBack).screws} />
          </TickButton>
        ) : (
          <p className="p-2 text-center font-semibold">Everything is back in place.</p>
        )}
      </Thumb>
    </Tabs.Content>
  );
}

interface ToolListProps {
  readonly fit: LayOutProps["fit"];
}

/** The tools, and their substitutes. */
function ToolList({ fit }: ToolListProps) {
  return (
    <ul className="mt-1 list-disc pl-5">
      {fit.tools.map((tool) => (
        <li key={tool}>
          {tool}
          {fit.substitutes
            .filter((own) => own.tool === tool)
            .map(({ instead, errorMillimetres, fit: how }) => (
              <span key={instead} className="text-soft">
                {" "}
                or {instead}, {how}: {Math.abs(errorMillimetres).toFixed(2)} mm{" "}
                {errorMillimetres > 0 ? "larger" : "smaller"}
              </span>
            ))}
        </li>
      ))}
      {fit.tools.length === 0 && <li>bare hands</li>}
      {fit.uses.map((what) => (
        <li key={what}>
          <b>new:</b> {what}
        </li>
      ))}
    </ul>
  );
}

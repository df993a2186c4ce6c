import type { SortCount } from "@core/access/sortCount";
import { screwsIn } from "@core/access/tray";
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
import { TicksProvider, TickTrouble } from "./useTicks";
import { WhereIsIt } from "./WhereIsIt";

interface RepairPageProps {
  readonly jobId: number;
  readonly shelfId: string;
  readonly fit: RepairData;
  readonly where: RepairPageData["where"];
}

/** The screws of a step counted by hand, by direction and step, and by sort. */
type ByHand = Readonly<Record<`${"in" | "back"} ${string}`, Readonly<Record<string, number>>>>;

/** The screws of a step as planned or as counted by hand, and how they are counted. */
type Counted = (
  own: "in" | "back",
  step: { readonly id: string; readonly sorts: readonly SortCount[] },
) => { readonly counts: readonly SortCount[]; readonly onCount: (sort: string, count: number) => void };

/** Removal and refitting side by side with the tray: one row for each step, ticked with one thumb. */
export function RepairPage({ jobId, shelfId, fit, where }: RepairPageProps) {
  const allOff = fit.steps.length > 0 && fit.steps.every(({ tick }) => tick);
  const [way, setWay] = useState<"in" | "back">(allOff ? "back" : "in");
  // Screws counted by hand if they differ from the plan; the phone's button and the row share the numbers.
  const [byHand, setByHand] = useState<ByHand>({});
  const counted: Counted = (own, { id, sorts }) => {
    const step = `${own} ${id}` as const;
    const mine = byHand[step] ?? {};
    return {
      counts: sorts.map(({ sort, count }) => ({ sort, count: mine[sort] ?? count })),
      onCount: (sort, count) => setByHand({ ...byHand, [step]: { ...mine, [sort]: count } }),
    };
  };
  const nextIn = fit.steps.find(({ tick }) => !tick);
  const due = fit.back.filter(({ tick, off }) => !tick && off);
  const nextBack = due.find(({ waits }) => waits.length === 0) ?? due[0];
  return (
    <TicksProvider jobId={jobId}>
      <main
        id="main"
        className="grid w-full max-w-7xl content-start items-start gap-4 px-5 py-3 max-md:px-3 max-md:pb-24 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      >
        <div className="grid min-w-0 gap-3">
          <TickTrouble />
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
              {fit.problem}. Choose another route, or change{" "}
              <Link to={`/shelf/${shelfId}/way`}>the plan</Link>.
            </p>
          )}
          {fit.targets.length === 0 && fit.steps.length === 0 ? (
            <p className="sheet-card p-4">
              Choose the parts to remove above. The order of steps follows from that.
            </p>
          ) : (
            <RepairSteps
              jobId={jobId}
              way={way}
              setWay={setWay}
              fit={fit}
              nextIn={nextIn}
              counted={counted}
              nextBack={nextBack}
            />
          )}
        </div>
        <LayOut fit={fit} where={where} shelfId={shelfId} />
      </main>
    </TicksProvider>
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
  readonly jobId: number;
  readonly way: "in" | "back";
  readonly setWay: Dispatch<SetStateAction<"in" | "back">>;
  readonly fit: RepairPageProps["fit"];
  readonly nextIn: RepairData["steps"][number] | undefined;
  readonly counted: Counted;
  readonly nextBack: RepairData["back"][number] | undefined;
}

/** The steps of removal and refitting, each with its ticks. */
function RepairSteps({ jobId, way, setWay, fit, nextIn, counted, nextBack }: RepairStepsProps) {
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
      <StepsBack jobId={jobId} fit={fit} nextBack={nextBack} counted={counted} />
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
        {fit.negativeByHand && (
          <p className="mt-2 border-l-4 border-danger pl-2">
            <b>Battery:</b> disconnect the negative before you splice; the plan has no step for it.
          </p>
        )}
        {!fit.batteryOff && !fit.negativeByHand && fit.steps.length > 0 && (
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
          <TickButton step={nextIn.id} way="in" {...counted("in", nextIn)} waits={nextIn.waits} main>
            {nextIn.title}
            <Screws count={screwsIn(counted("in", nextIn).counts)} />
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
  readonly jobId: number;
  readonly fit: RepairStepsProps["fit"];
  readonly nextBack: RepairStepsProps["nextBack"];
  readonly counted: RepairStepsProps["counted"];
}

/** The one way on once everything is back: the final check, or first the work list that says what was done. */
function CheckNext({ fit, jobId }: { readonly fit: RepairData; readonly jobId: number }) {
  if (fit.tray.unexplained.length > 0)
    return (
      <p className="border-l-4 border-danger pl-3 font-semibold">
        Everything is ticked, but the screws do not add up. Say in the tray what became of them.
      </p>
    );
  return (
    <p className="flex flex-wrap items-center gap-3 font-semibold">
      Everything is back in place.
      <Link to={fit.checkDue ? `/jobs/${jobId}/prove` : `/jobs/${jobId}/work`} className="btn btn-main">
        {fit.checkDue ? "Go to the final check" : "Go to the work list: mark what was done"}
      </Link>
    </p>
  );
}

/** The refitting steps. */
function StepsBack({ fit, nextBack, counted, jobId }: StepsBackProps) {
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
      {!nextBack && fit.back.length > 0 && (
        <div className="mt-3 max-md:hidden">
          <CheckNext fit={fit} jobId={jobId} />
        </div>
      )}
      <Thumb>
        {nextBack ? (
          <TickButton
            step={nextBack.id}
            way="back"
            {...counted("back", nextBack)}
            waits={nextBack.waits}
            main
          >
            {nextBack.title}
            <Screws count={screwsIn(counted("back", nextBack).counts)} />
          </TickButton>
        ) : (
          <CheckNext fit={fit} jobId={jobId} />
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

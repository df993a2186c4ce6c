import { pathBoard } from "@core/diagnose/explain/pathBoard";
import { problemText } from "@core/problem/problem";
import { buildNetlist } from "@core/solve/buildNetlist";
import { circuitFamily } from "@core/solve/checks/circuitFamily";
import { circuitFindings } from "@core/solve/checks/circuitFinding";
import { healthyPoints } from "@core/solve/healthyPoint";
import type { Netlist } from "@core/solve/netlist/netlist";
import { type DraftState, draftState } from "@core/trace/draft";
import { questionsAsked } from "@core/trace/traceAnswer";
import { type Draft, findDraft } from "@db/repositories/drafts.server";
import { circuitFindingWords, familyText } from "@words/circuitWords";
import { partName } from "@words/partName";
import { data } from "react-router";
import { healthyView } from "../probe/probeSheetView.server";

/** The draft of an address; answers 404 if there is none. */
export async function draftAt(id: string): Promise<Draft> {
  const draft = await findDraft(id);
  if (!draft) throw data("There is no such draft. It may already be on the shelf.", { status: 404 });
  return draft;
}

/**
 * The result of a draft's active steps.
 * @throws only if the stored draft was damaged
 */
export function stateOf({ base, name, steps, position }: Draft): DraftState {
  const state = draftState(base, name, steps.slice(0, position));
  if (!state.ok) throw new Error(state.problems.map(problemText).join("; "));
  return state.value;
}

/** What each setting gives at each motor of a healthy vehicle. */
function speedLines(netlist: Netlist) {
  const points = healthyPoints(netlist);
  return netlist.motors.map(({ part }) => {
    const rpm = points.map(({ point }) => point.rpm[part.id] ?? 0);
    const top = Math.max(1, ...rpm);
    return {
      motor: part.id,
      speeds: points.map(({ setting, point }, index) => {
        const [plus, minus] = [point.volts[`${part.id}.+`] ?? null, point.volts[`${part.id}.-`] ?? null];
        return {
          setting,
          volts: plus === null || minus === null ? null : plus - minus,
          amps: point.amps[part.id] ?? 0,
          share: (rpm[index] as number) / top,
        };
      }),
    };
  });
}

/** Everything the trace's page shows of a draft. */
export function draftView(draft: Draft) {
  const { circuit, answers, dropped } = stateOf(draft);
  const netlist = buildNetlist(circuit, { lumpWires: true });
  return {
    id: draft.id,
    name: draft.name,
    undo: draft.position > 0,
    redo: draft.position < draft.steps.length,
    token: `${draft.steps.length}:${draft.position}:${draft.changedAt.getTime()}`,
    circuit,
    answers,
    asked: answers ? questionsAsked(answers) : [],
    dropped: dropped.map(({ problem }) => problemText(problem)),
    ...(netlist.ok
      ? {
          problems: [],
          sheet: healthyView(netlist.value),
          findings: circuitFindingWords(circuitFindings(netlist.value)),
          family: familyText(circuitFamily(netlist.value)),
          motors: speedLines(netlist.value),
          board: pathBoard(netlist.value).map((row) => ({
            ...row,
            amps: row.amps.map((own) => Math.round(own * 100) / 100),
            name: partName(circuit, row.part),
            shared: false,
            cleared: false,
            p: 0,
          })),
        }
      : {
          problems: netlist.problems.map(problemText),
          sheet: null,
          findings: [],
          family: "",
          motors: [],
          board: [],
        }),
  };
}

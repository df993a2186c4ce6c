import { airflowReading } from "@core/predict/observations/airflow";
import { faultTitle } from "@words/partName";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { activeReadings, type JobView, sheetStatesAt } from "../job/jobView.server";
import { CircuitSheet } from "../sheet/CircuitSheet";
import { layoutOf } from "../sheet/layouts.server";
import { plainSheet } from "../sheet/plainSheet";
import { standAlone } from "../sheet/saveSvg";

/** The page's colours of the light theme, for paper. */
const paper: Readonly<Record<string, string>> = {
  "--card": "#ffffff",
  "--rule": "#d5ccba",
  "--ink": "#1d282c",
  "--soft": "#525d59",
  "--feed": "#a85a08",
  "--ground": "#33506b",
  "--doubt": "#7b3f66",
  "--danger": "#b3261e",
  "--good": "#2f5d3a",
  "--lit": "#f3cf86",
  "--mark": "#f6e3bf",
  "--go": "#f0b14a",
};

/** Leaves the page's colours and fonts in a drawing as they are named, so that it follows the theme. */
const asNamed = (css: string): string => css;

/** A colour by name, or a mix of two. */
export function paperColour(css: string): string {
  const mix = /^color-mix\(in oklab, var\((--[a-z-]+)\) ([\d.]+)%, var\((--[a-z-]+)\)\)$/.exec(css);
  if (mix) {
    const [one, other] = [paper[mix[1] ?? ""], paper[mix[3] ?? ""]];
    return one && other ? mixed(one, other, Number(mix[2]) / 100) : "#1d282c";
  }
  return paper[/^var\((--[a-z-]+)\)$/.exec(css)?.[1] ?? ""] ?? "#1d282c";
}

function mixed(one: string, other: string, share: number): string {
  const parts = [1, 3, 5].map((at) =>
    Math.round(
      share * Number.parseInt(one.slice(at, at + 2), 16) +
        (1 - share) * Number.parseInt(other.slice(at, at + 2), 16),
    ),
  );
  return `#${parts.map((part) => part.toString(16).padStart(2, "0")).join("")}`;
}

/** A speed at which a fault shows: the first that was not normal, otherwise the strongest. */
function showingSpeed(view: JobView): string {
  const wrong = activeReadings(view).flatMap((reading) => {
    const air = airflowReading.safeParse(reading);
    return air.success && air.data.key === "run" && air.data.seen !== "normal" && air.data.setting
      ? [air.data.setting]
      : [];
  });
  const [off, ...speeds] = view.circuit.settings;
  return wrong.find((setting) => setting !== off) ?? speeds.at(-1) ?? off ?? "off";
}

/**
 * The drawing for the verdict: the circuit with the likeliest fault in it, in the theme of the page; null for a fault
 * outside the circuit.
 */
export async function failedPath(view: JobView, faultId: string | null, p: number) {
  const variant = view.engine.variants.find(({ id }) => id === faultId);
  if (!variant || variant.fault.changes.length === 0) return null;
  const { svg, setting } = await faultSheet(view, variant.family, p, asNamed, asNamed);
  return { svg, setting, words: faultTitle(view.circuit, variant) };
}

/**
 * Draws the circuit with a fault in it and marks the faulty parts; returns a complete SVG, for paper unless said otherwise.
 * @param p the probability shown beside the mark
 */
export async function faultSheet(
  view: JobView,
  fault: string,
  p = 1,
  colour: (css: string) => string = paperColour,
  font: (css: string) => string = () => "sans",
): Promise<{ svg: string; width: number; height: number; setting: string }> {
  const { circuit, engine } = view;
  const setting = showingSpeed(view);
  const variant = engine.variants.find(({ family }) => family === fault);
  const [state] = sheetStatesAt(engine, [variant?.id ?? "healthy"], [{ key: "run", setting }]);
  if (!state) throw new Error(`${circuit.id} has no state at ${setting}`);
  const layout = await layoutOf(engine.netlist);
  const marked = variant?.fault.parts ?? [];
  const markup = renderToStaticMarkup(
    createElement(CircuitSheet, {
      ...plainSheet(circuit, state, { doubt: Object.fromEntries(marked.map((part) => [part, p])) }),
      layout,
    }),
  );
  const { x, y, width, height } = layout;
  return {
    svg: standAlone(markup, { x, y, width, height }, colour, font, circuit.title),
    width,
    height,
    setting,
  };
}

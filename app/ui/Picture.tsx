import type { Chart, ChartConfiguration } from "chart.js";
import type { RefObject } from "react";
import { useEffect, useRef } from "react";
import { type Colours, type Mark, paintChart } from "./chart";

interface PictureProps {
  readonly title: string;
  /** What the picture shows, in words, for people who cannot see it. */
  readonly words: string;
  readonly configure: (colours: Colours) => ChartConfiguration;
  /** Changes whenever the picture must be painted again. */
  readonly of: string;
  readonly marks?: readonly Mark[];
  readonly height?: number;
  /** True if it can be zoomed: drag, wheel, pinch. */
  readonly zooms?: boolean;
  readonly file: string;
}

/** A chart with its title, which a tap saves as PNG; a mark scrolls it into view. */
export function Picture({
  title,
  words,
  configure,
  of,
  marks = [],
  height = 240,
  zooms = false,
  file,
}: PictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const figure = useRef<HTMLElement>(null);
  const chart = useRef<Chart | null>(null);
  const now = useRef({ configure, marks });
  now.current = { configure, marks };
  useEffect(() => {
    let gone = false;
    const paint = (): void => {
      if (!canvas.current) return;
      void paintChart(canvas.current, now.current.configure, () => now.current.marks).then((made) => {
        if (gone) made.destroy();
        else chart.current = made;
      });
    };
    paint();
    const redraw = (): void => {
      chart.current?.destroy();
      chart.current = null;
      paint();
    };
    const theme = new MutationObserver(redraw);
    theme.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => {
      gone = true;
      theme.disconnect();
      chart.current?.destroy();
      chart.current = null;
    };
  }, [of]);
  const marked = marks.map(({ label }) => label).join();
  useEffect(() => {
    chart.current?.draw();
    if (marked !== "") figure.current?.scrollIntoView({ block: "nearest" });
  }, [marked]);
  const save = (): void => {
    if (!canvas.current) return;
    const link = document.createElement("a");
    link.href = canvas.current.toDataURL("image/png");
    link.download = `${file}.png`;
    link.click();
  };
  return (
    <figure ref={figure} className="sheet-card min-w-0 p-3">
      <PictureCaption title={title} zooms={zooms} chart={chart} save={save} />
      <div className="relative" style={{ height }}>
        <canvas ref={canvas} role="img" aria-label={words} />
      </div>
    </figure>
  );
}

/** Zoom settings of every picture that zooms. */
export const zoomX = {
  pan: { enabled: true, mode: "x", modifierKey: "shift" },
  zoom: { wheel: { enabled: true }, pinch: { enabled: true }, drag: { enabled: true }, mode: "x" },
  limits: { x: { min: "original", max: "original" } },
} as const;

interface PictureCaptionProps {
  readonly title: PictureProps["title"];
  readonly zooms: boolean;
  readonly chart: RefObject<Chart | null>;
  readonly save: () => void;
}

/** The picture's title and actions. */
function PictureCaption({ title, zooms, chart, save }: PictureCaptionProps) {
  return (
    <figcaption className="flex flex-wrap items-center justify-between gap-x-3">
      <span className="font-semibold">{title}</span>
      <span className="no-print flex gap-3 text-base">
        {zooms && (
          <button type="button" className="min-h-11 underline" onClick={() => chart.current?.resetZoom()}>
            whole
          </button>
        )}
        <button
          type="button"
          className="min-h-11 underline"
          aria-label={`Save ${title} as an image`}
          onClick={save}
        >
          save
        </button>
      </span>
    </figcaption>
  );
}

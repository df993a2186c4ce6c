import { createContext, memo, Suspense, useContext, useEffect, useRef, useState } from "react";
import { Await } from "react-router";
import {
  MiniMap,
  type ReactZoomPanPinchContentRef,
  TransformComponent,
  TransformWrapper,
} from "react-zoom-pan-pinch";
import { CircuitSheet } from "./CircuitSheet";
import type { CircuitLayout } from "./circuitLayout";
import { type SheetOrder, sheetEvent } from "./SheetTools";
import { saveSvg } from "./saveSvg";
import type { SheetProps } from "./sheetProps";

const mostScale = 6;
const step = 0.45;
/** Zoom from which the sheet pans and shows its overview. */
const zoomedIn = 1.02;
const closeUp = 2.4;

/**
 * What the window shows and the commands it gets; separate from the window, which does not render again for a reading.
 */
interface Shown {
  /** Null until there is a state to show. */
  readonly sheet: SheetProps | null;
  /** File name of the saved drawing. */
  readonly fileName: string;
  /** What "closer" zooms to: the point under the probe, or what was tapped. */
  readonly focus: string | null;
}

const ShownContext = createContext<Shown>({ sheet: null, fileName: "", focus: null });

function ShownSheet() {
  const { sheet } = useContext(ShownContext);
  return sheet && <CircuitSheet {...sheet} />;
}
const shownSheet = <ShownSheet />;

type View = React.RefObject<ReactZoomPanPinchContentRef | null>;
type Frame = React.RefObject<HTMLDivElement | null>;

/** Carries out the commands of buttons and keys, and keeps the next test's points visible while zoomed in. */
function Orders({ view, frame }: { view: View; frame: Frame }) {
  const { sheet, fileName, focus } = useContext(ShownContext);
  const drawn = sheet !== null;
  // On a phone the whole drawing is too small to read, so it opens at the point to touch.
  const opened = useRef(false);
  useEffect(() => {
    if (opened.current || !drawn || focus === null || !window.matchMedia("(width < 48rem)").matches) return;
    const frameNow = requestAnimationFrame(() => {
      opened.current = true;
      goTo(view, frame, focus);
    });
    return () => cancelAnimationFrame(frameNow);
  }, [view, frame, focus, drawn]);
  useEffect(() => {
    if (scaleOf(view) > zoomedIn) goTo(view, frame, focus);
  }, [view, frame, focus]);
  useEffect(() => {
    const orders: Record<SheetOrder, () => void> = {
      in: () => void view.current?.zoomIn(step, 0),
      out: () => void view.current?.zoomOut(step, 0),
      all: () => void view.current?.resetTransform(0),
      closer: () => goTo(view, frame, focus),
      save: () => {
        const drawing = frame.current?.querySelector<SVGSVGElement>(".airway-sheet");
        if (drawing) saveSvg(drawing, fileName);
      },
    };
    const act = (event: Event): void => orders[(event as CustomEvent<SheetOrder>).detail]();
    window.addEventListener(sheetEvent, act);
    return () => window.removeEventListener(sheetEvent, act);
  }, [view, frame, fileName, focus]);
  return null;
}

/** Height of the drawing's smallest text, and what it must have on the screen to be read. */
const smallestText = 12;
const readablePixels = 11;

/** The scale from which every text of the drawing can be read. */
function readableScale(view: View, frame: Frame): number {
  const drawing = frame.current?.querySelector<SVGSVGElement>(".airway-sheet");
  const pixelsPerUnit = (drawing?.getScreenCTM()?.a ?? 1) / scaleOf(view);
  return Math.min(mostScale, readablePixels / (smallestText * pixelsPerUnit));
}

const scaleOf = (view: View): number => view.current?.state.scale ?? 1;

function goTo(view: View, frame: Frame, name: string | null): void {
  if (name === null) return;
  const named = CSS.escape(name);
  const at = frame.current?.querySelector<HTMLElement>(
    ["point", "terminal", "part", "wire"].map((kind) => `.airway-sheet [data-${kind}="${named}"]`).join(),
  );
  if (at)
    void view.current?.zoomToElement(
      at,
      Math.max(closeUp, readableScale(view, frame), scaleOf(view)),
      still() ? 0 : 200,
    );
}

/** The sheet's window: pinch, wheel and drag, fit and closer, an overview while zoomed in; printing and saving. */
const SheetView = memo(function SheetView({ layout }: { readonly layout: CircuitLayout }) {
  const view = useRef<ReactZoomPanPinchContentRef>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [zoomed, setZoomed] = useState(false);
  return (
    <div ref={frame} className="sheet-window absolute inset-0">
      <TransformWrapper
        ref={view}
        minScale={1}
        maxScale={mostScale}
        centerOnInit
        doubleClick={{ disabled: true }}
        panning={{ disabled: !zoomed, velocityDisabled: true }}
        // An animation back to the edge would undo a zoom that follows at once.
        autoAlignment={{ animationTime: 0 }}
        wheel={{ step: 0.12 }}
        onTransform={(_, state) => setZoomed(state.scale > zoomedIn)}
      >
        {zoomed && (
          <div
            className="no-print pointer-events-none absolute bottom-1.5 left-1.5 z-10 max-md:hidden overflow-hidden rounded-card border border-[var(--edge)] bg-card [&>*]:pointer-events-auto"
            aria-hidden="true"
          >
            <MiniMap
              width={150}
              height={120}
              borderColor="var(--feed)"
              previewStyle={{
                boxShadow: "0 0 0 100vmax color-mix(in oklab, var(--card) 60%, transparent)",
              }}
            >
              <Overview layout={layout} />
            </MiniMap>
          </div>
        )}
        <TransformComponent
          wrapperClass="sheet-frame"
          contentClass="sheet-content"
          wrapperStyle={{ width: "100%", height: "100%", touchAction: zoomed ? "none" : "pan-y" }}
          contentStyle={{ width: "100%", height: "100%" }}
        >
          {shownSheet}
        </TransformComponent>
      </TransformWrapper>
      <Orders view={view} frame={frame} />
    </div>
  );
});

interface LaidOutSheetProps {
  /** The layout, or a promise while it is being computed. */
  readonly layout: CircuitLayout | Promise<CircuitLayout>;
  readonly fileName: string;
  readonly focus: string | null;
  /** What the sheet shows of the circuit; null until there is a state to show. */
  readonly sheet: Omit<SheetProps, "layout"> | null;
}

/** A circuit in its window, shown as soon as it is laid out. */
export const LaidOutSheet = memo(function LaidOutSheet({
  layout,
  fileName,
  focus,
  sheet,
}: LaidOutSheetProps) {
  return (
    <Suspense fallback={<p className="p-4 text-soft">Drawing the circuit…</p>}>
      <Await
        resolve={layout}
        errorElement={
          <p role="alert" className="p-4">
            The circuit could not be drawn. The rest of this page works without it.
          </p>
        }
      >
        {(made) => (
          <ShownContext value={{ fileName, focus, sheet: sheet && { ...sheet, layout: made } }}>
            <SheetView layout={made} />
          </ShownContext>
        )}
      </Await>
    </Suspense>
  );
});

const still = (): boolean => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** The positions of parts and wires, without their state. */
function Overview({ layout }: { layout: CircuitLayout }) {
  return (
    <svg
      viewBox={`${layout.x} ${layout.y} ${layout.width} ${layout.height}`}
      className="size-full"
      role="presentation"
    >
      {layout.wires.map(({ id, corners }) => (
        <polyline
          key={id}
          points={corners.map(({ x, y }) => `${x},${y}`).join(" ")}
          fill="none"
          stroke="var(--edge)"
          strokeWidth={5}
        />
      ))}
      {layout.parts.map(({ id, x, y, shape }) => (
        <rect key={id} x={x} y={y} width={shape.width} height={shape.height} fill="var(--soft)" />
      ))}
    </svg>
  );
}

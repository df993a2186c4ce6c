import { useEffect, useRef, useState } from "react";
import {
  MiniMap,
  type ReactZoomPanPinchContentRef,
  TransformComponent,
  TransformWrapper,
} from "react-zoom-pan-pinch";
import type { CircuitLayout } from "./circuitLayout";
import { type SheetOrder, sheetEvent } from "./SheetTools";
import { saveSvg } from "./saveSvg";

const mostScale = 6;
const step = 0.45;
/** From this on the sheet counts as zoomed in: it pans, and its overview is shown. */
const zoomedIn = 1.02;
const closeUp = 2.4;

interface SheetViewProps {
  readonly layout: CircuitLayout;
  /** Name the saved drawing gets. */
  readonly fileName: string;
  /** What "closer" goes to: the point under the probe, or the part tapped. */
  readonly focus: string | null;
  readonly children: React.ReactNode;
}

/** The sheet's window: pinch, wheel and drag, fit and closer, an overview while zoomed in; printed and saved. */
export function SheetView({ layout, fileName, focus, children }: SheetViewProps) {
  const view = useRef<ReactZoomPanPinchContentRef>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [scale, setScale] = useState(1);
  const zoomed = scale > zoomedIn;
  const find = (name: string): Element | null =>
    frame.current?.querySelector(
      `.airway-sheet [data-point="${CSS.escape(name)}"], .airway-sheet [data-terminal="${CSS.escape(name)}"], .airway-sheet [data-part="${CSS.escape(name)}"], .airway-sheet [data-wire="${CSS.escape(name)}"]`,
    ) ?? null;
  const closer = (): void => {
    const at = focus ? find(focus) : null;
    if (at) void view.current?.zoomToElement(at as HTMLElement, Math.max(closeUp, scale), still() ? 0 : 200);
  };
  // Zoomed in, the sheet follows what the next look touches.
  const save = (): void => {
    const drawing = frame.current?.querySelector<SVGSVGElement>(".airway-sheet");
    if (drawing) saveSvg(drawing, fileName);
  };
  const follow = useRef({ zoomed, closer, save });
  follow.current = { zoomed, closer, save };
  useEffect(() => {
    if (focus && follow.current.zoomed) follow.current.closer();
  }, [focus]);
  useEffect(() => {
    const orders: Record<SheetOrder, () => void> = {
      in: () => void view.current?.zoomIn(step, 0),
      out: () => void view.current?.zoomOut(step, 0),
      all: () => void view.current?.resetTransform(0),
      closer: () => follow.current.closer(),
      save: () => follow.current.save(),
    };
    const act = (event: Event): void => orders[(event as CustomEvent<SheetOrder>).detail]();
    window.addEventListener(sheetEvent, act);
    return () => window.removeEventListener(sheetEvent, act);
  }, []);
  return (
    <div ref={frame} className="sheet-window size-full">
      <TransformWrapper
        ref={view}
        minScale={1}
        maxScale={mostScale}
        centerOnInit
        doubleClick={{ disabled: true }}
        panning={{ disabled: !zoomed, velocityDisabled: true }}
        wheel={{ step: 0.12 }}
        onTransform={(_, state) => setScale(state.scale)}
      >
        {zoomed && (
          <div
            className="no-print pointer-events-none absolute bottom-1.5 left-1.5 z-10 overflow-hidden rounded-card border border-[var(--edge)] bg-card [&>*]:pointer-events-auto"
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
          {children}
        </TransformComponent>
      </TransformWrapper>
    </div>
  );
}

const still = (): boolean => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** Where the parts and wires lie, without their state. */
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

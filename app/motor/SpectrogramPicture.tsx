import type { SpectrogramPicture as Levels } from "@core/signal/recordingPicture";
import { useEffect, useRef } from "react";

/** Dark for loud on light paper, in both themes, because a light background at night would dazzle. */
function shade(level: number): [number, number, number] {
  const t = (level / 255) ** 1.5;
  const mix = (from: number, to: number): number => Math.round(from + (to - from) * t);
  return [mix(252, 29), mix(250, 40), mix(245, 44)];
}

/** A spectrogram: time to the right, frequency upwards, darker for louder; a tap saves it as PNG. */
export function SpectrogramPicture({ title, picture }: { title: string; picture: Levels }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { columns, rows, topHz, seconds, levels } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const image = context.createImageData(columns, rows);
    for (let column = 0; column < columns; column++)
      for (let row = 0; row < rows; row++) {
        const [red, green, blue] = shade(levels[column * rows + row] ?? 0);
        const at = 4 * ((rows - 1 - row) * columns + column);
        image.data.set([red, green, blue, 255], at);
      }
    context.putImageData(image, 0, 0);
  }, [columns, rows, levels]);
  const save = (): void => {
    if (!canvas.current) return;
    const link = document.createElement("a");
    link.href = canvas.current.toDataURL("image/png");
    link.download = "spectrogram.png";
    link.click();
  };
  return (
    <figure className="sheet-card min-w-0 p-3">
      <figcaption className="flex items-center justify-between gap-3">
        <span className="font-semibold">{title}</span>
        <button type="button" className="no-print min-h-11 text-base underline" onClick={save}>
          save
        </button>
      </figcaption>
      <div className="grid grid-cols-[auto_1fr] gap-x-2 text-base text-soft">
        <span className="figures row-span-1 flex flex-col justify-between text-right">
          <span>{(topHz / 1000).toFixed(0)} kHz</span>
          <span>{(topHz / 2000).toFixed(0)}</span>
          <span>0</span>
        </span>
        <canvas
          ref={canvas}
          width={columns}
          height={rows}
          role="img"
          aria-label={`Loudness by time and frequency, ${seconds.toFixed(1)} s, up to ${Math.round(topHz)} Hz`}
          className="h-44 w-full border border-rule [image-rendering:pixelated]"
        />
        <span />
        <span className="figures flex justify-between">
          <span>0 s</span>
          <span>{seconds.toFixed(1)} s</span>
        </span>
      </div>
    </figure>
  );
}

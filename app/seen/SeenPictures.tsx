import type { SeenCar } from "@core/wiring/seenCar";

const Frame = ({ children }: { children: React.ReactNode }) => (
  <svg width={72} height={44} viewBox="0 0 72 44" aria-hidden="true">
    {children}
  </svg>
);
const line = { fill: "none", stroke: "currentColor", strokeWidth: 2 } as const;

/** A turning knob with its stops around it. */
const Dial = () => (
  <Frame>
    <circle cx={36} cy={26} r={12} {...line} />
    <path d="M36 26L28 18" {...line} strokeWidth={3} />
    {[-70, -35, 0, 35, 70].map((turn) => (
      <path key={turn} d="M36 8V4" {...line} transform={`rotate(${turn} 36 26)`} />
    ))}
  </Frame>
);

/** A row of push buttons, one pressed. */
const Buttons = () => (
  <Frame>
    {[6, 22, 38, 54].map((x) => (
      <rect key={x} x={x} y={16} width={12} height={14} {...line} fill={x === 22 ? "currentColor" : "none"} />
    ))}
  </Frame>
);

/** Wire coils between two posts on a plate with a plug. */
const Pack = () => (
  <Frame>
    <path d="M8 36H64" {...line} strokeWidth={3} />
    {[0, 1, 2].map((row) => (
      <path key={row} d={`M14 ${30 - 9 * row}${"q3 -8 6 0".repeat(7)}`} {...line} strokeWidth={1.6} />
    ))}
    <path d="M12 36V8M58 36V8" {...line} />
  </Frame>
);

/** A block with cooling fins and a plug. */
const Module = () => (
  <Frame>
    <rect x={10} y={28} width={52} height={10} {...line} />
    {[14, 22, 30, 38, 46, 54].map((x) => (
      <rect key={x} x={x} y={8} width={4} height={20} {...line} strokeWidth={1.6} />
    ))}
  </Frame>
);

const Unseen = () => (
  <Frame>
    <rect x={12} y={8} width={48} height={30} {...line} strokeDasharray="4 4" />
    <path d="M30 18q0 -6 6 -6t6 6q0 4 -6 6v3M36 32v2" {...line} />
  </Frame>
);

const Wheel = ({ x }: { x: number }) => (
  <g transform={`translate(${x} 22)`}>
    <circle r={12} {...line} />
    <circle r={3} fill="currentColor" />
    {[0, 60, 120, 180, 240, 300].map((turn) => (
      <path key={turn} d="M0 -5q3 -2 2 -6" {...line} strokeWidth={1.6} transform={`rotate(${turn})`} />
    ))}
  </g>
);

const OneBlower = () => (
  <Frame>
    <Wheel x={36} />
  </Frame>
);

const TwoBlowers = () => (
  <Frame>
    <Wheel x={20} />
    <Wheel x={52} />
  </Frame>
);

/** A cabin from above, with the steering wheel on one side. */
const Steering = ({ x }: { x: number }) => (
  <Frame>
    <path d="M10 38V16q0 -10 26 -10t26 10V38" {...line} />
    <path d="M12 18H60" {...line} strokeWidth={1.6} />
    <ellipse cx={x} cy={25} rx={8} ry={3.5} {...line} strokeWidth={2.4} />
  </Frame>
);

/** One thing that can be seen on a vehicle. */
export interface SeenChoice {
  readonly value: string;
  readonly words: string;
  readonly picture: React.ReactNode;
}

/** What can be seen besides the number of speeds, by the key of the form. */
export const seenChoices = {
  controls: [
    { value: "dial", words: "a dial or lever", picture: <Dial /> },
    { value: "buttons", words: "buttons", picture: <Buttons /> },
  ],
  speedPart: [
    { value: "pack", words: "a resistor pack", picture: <Pack /> },
    { value: "module", words: "a finned control module", picture: <Module /> },
    { value: "unknown", words: "not seen yet", picture: <Unseen /> },
  ],
  blowers: [
    { value: "1", words: "one", picture: <OneBlower /> },
    { value: "2", words: "two", picture: <TwoBlowers /> },
  ],
  steering: [
    { value: "left", words: "on the left", picture: <Steering x={24} /> },
    { value: "right", words: "on the right", picture: <Steering x={48} /> },
  ],
} as const satisfies Partial<Record<keyof SeenCar, readonly SeenChoice[]>>;

interface PictureChoiceProps {
  readonly name: keyof typeof seenChoices;
  readonly title: string;
  readonly chosen: string | undefined;
  /** Called with the value, if the page keeps it; the form sends it in any case. */
  readonly onChoose?: (value: string) => void;
}

/** One question answered by tapping a picture; left open, it has no effect. */
export function PictureChoice({ name, title, chosen, onChoose }: PictureChoiceProps) {
  return (
    <fieldset>
      <legend className="font-semibold">{title}</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {seenChoices[name].map(({ value, words, picture }) => (
          <label
            key={value}
            className="flex min-h-11 min-w-24 grow basis-24 cursor-pointer flex-col items-center rounded-card border-[1.5px] border-[var(--edge)] bg-card p-2 text-center text-base leading-tight has-checked:border-ink has-checked:bg-mark has-checked:font-bold has-focus-visible:outline-2 md:max-w-44"
          >
            <input
              type="radio"
              name={name}
              value={value}
              defaultChecked={chosen === value}
              onChange={() => onChoose?.(value)}
              className="sr-only"
            />
            {picture}
            {words}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

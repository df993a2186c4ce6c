import type { CircuitEdit } from "@core/circuit/circuitEdit";
import type { Part, PartKind } from "@core/circuit/parts/index";
import { writtenColour, writtenMetres, writtenMm2 } from "@core/circuit/writtenWire";
import { typedFigure } from "@core/units/typedFigure";
import { useState } from "react";
import { type SubmitHandler, useForm } from "react-hook-form";
import { fits, useEditing } from "./Cell";

/** The next free name with a letter: W12 after W11. */
function nextName(letter: string, taken: readonly { readonly id: string }[]): string {
  const numbers = taken.flatMap(({ id }) => {
    const match = new RegExp(`^${letter}(\\d+)$`).exec(id);
    return match ? [Number(match[1])] : [];
  });
  return `${letter}${Math.max(0, ...numbers) + 1}`;
}

/** Sends what a form makes, and reports why it does not fit. */
function useAdding(): [string | null, (edit: CircuitEdit) => boolean] {
  const { circuit, send } = useEditing();
  const [problem, setProblem] = useState<string | null>(null);
  return [
    problem,
    (edit) => {
      const fit = fits(circuit, edit);
      setProblem(fit === true ? null : fit);
      if (fit === true) send(edit);
      return fit === true;
    },
  ];
}

const Problem = ({ words }: { words: string | null }) =>
  words && (
    <p role="alert" className="w-full text-danger">
      {words}
    </p>
  );

interface Labelled {
  readonly title: string;
  readonly children: React.ReactNode;
}
const Labelled = ({ title, children }: Labelled) => (
  // biome-ignore lint/a11y/noLabelWithoutControl: its field is among the children
  <label className="grid gap-0.5 text-base text-soft">
    {title}
    {children}
  </label>
);

const Options = ({ of }: { of: readonly string[] }) => (
  <>
    {of.map((one) => (
      <option key={one} value={one}>
        {one}
      </option>
    ))}
  </>
);

interface WireFields {
  readonly from: string;
  readonly to: string;
  readonly colour: string;
  readonly mm2: string;
  readonly metres: string;
}

/** Adds a wire that is in the diagram but not in the table. */
export function AddWire({ terminals }: { terminals: readonly string[] }) {
  const { circuit } = useEditing();
  const [problem, add] = useAdding();
  const { register, handleSubmit, reset } = useForm<WireFields>({
    defaultValues: { from: "", to: "", colour: "BK", mm2: "1", metres: "1" },
  });
  const submit: SubmitHandler<WireFields> = ({ from, to, colour, mm2, metres }) => {
    const item = {
      id: nextName("W", circuit.wires),
      from,
      to,
      ...(writtenColour(colour) ?? { colour: colour.trim() }),
      mm2: writtenMm2(mm2),
      metres: writtenMetres(metres),
    };
    if (add({ do: "add", list: "wires", item })) reset();
  };
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      aria-label="Add a wire"
      onSubmit={(event) => void handleSubmit(submit)(event)}
    >
      <Labelled title="From">
        <select {...register("from")} className="field w-28">
          <option value="">choose</option>
          <Options of={terminals} />
        </select>
      </Labelled>
      <Labelled title="To">
        <select {...register("to")} className="field w-28">
          <option value="">choose</option>
          <Options of={terminals} />
        </select>
      </Labelled>
      <Labelled title="Colour">
        <input {...register("colour")} className="field figures w-20" />
      </Labelled>
      <Labelled title="mm²">
        <input {...register("mm2")} inputMode="decimal" className="field figures w-16" />
      </Labelled>
      <Labelled title="Metres">
        <input {...register("metres")} inputMode="decimal" className="field figures w-16" />
      </Labelled>
      <button type="submit" className="btn">
        Add the wire
      </button>
      <Problem words={problem} />
    </form>
  );
}

/** A new part of each kind, with usual values marked as assumed. */
const newParts = {
  fuse: ["F", { kind: "fuse", amps: 10 }],
  relay: ["K", { kind: "relay", coilOhms: 85, pullInVolts: 7.5, contactOhms: 0.004 }],
  ground: ["E", { kind: "ground", ohms: 0.002 }],
  splice: ["J", { kind: "splice" }],
  inline: ["X", { kind: "inline", pins: ["1"] }],
  motor: ["M", { kind: "motor", ratedVolts: 13.5, ratedAmps: 10, stallAmps: 40, ratedRpm: 3000 }],
  resistor: ["R", { kind: "resistor", elements: [{ id: "e1", from: "T1", to: "T2", ohms: 1 }] }],
  selector: ["S", { kind: "selector", common: "C", closes: { off: [], on: ["A"] }, settings: ["off", "on"] }],
} satisfies Partial<Record<PartKind, readonly [string, object]>>;
type NewKind = keyof typeof newParts;

const kindWords: Readonly<Record<NewKind, string>> = {
  fuse: "fuse",
  relay: "relay",
  ground: "ground point",
  splice: "splice",
  inline: "in-line plug",
  motor: "motor",
  resistor: "resistor pack",
  selector: "separate switch",
};

/** Adds a part that the usual circuit does not have. */
export function AddPart() {
  const { circuit } = useEditing();
  const [problem, add] = useAdding();
  const { register, handleSubmit } = useForm<{ kind: NewKind }>({ defaultValues: { kind: "fuse" } });
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      aria-label="Add a part"
      onSubmit={(event) =>
        void handleSubmit(({ kind }) => {
          const [letter, values] = newParts[kind];
          const id = nextName(letter, [...circuit.parts, ...circuit.connectors]);
          const item = { id, ...values, ...(kind === "splice" ? {} : { assumed: true }) } as Part;
          add({ do: "add", list: "parts", item });
        })(event)
      }
    >
      <Labelled title="Kind">
        <select {...register("kind")} className="field">
          {(Object.keys(newParts) as NewKind[]).map((kind) => (
            <option key={kind} value={kind}>
              {kindWords[kind]}
            </option>
          ))}
        </select>
      </Labelled>
      <button type="submit" className="btn">
        Add the part
      </button>
      <Problem words={problem} />
    </form>
  );
}

interface ElementFields {
  readonly pack: string;
  readonly from: string;
  readonly to: string;
  readonly ohms: string;
}

/** Adds a coil or a thermal link to a pack. */
export function AddElement() {
  const { circuit } = useEditing();
  const [problem, add] = useAdding();
  const packs = circuit.parts.filter((part) => part.kind === "resistor");
  const { register, handleSubmit, reset } = useForm<ElementFields>({
    defaultValues: { pack: packs[0]?.id ?? "", from: "", to: "", ohms: "" },
  });
  if (packs.length === 0) return null;
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      aria-label="Add a coil"
      onSubmit={(event) =>
        void handleSubmit(({ pack, from, to, ohms }) => {
          const elements = packs.find(({ id }) => id === pack)?.elements ?? [];
          const ends = { from: from.trim(), to: to.trim() };
          const item =
            ohms.trim() === ""
              ? { id: nextName("link", elements), ...ends, thermalLink: true as const }
              : { id: nextName("e", elements), ...ends, ohms: typedFigure(ohms) };
          if (add({ do: "element", id: pack, item })) reset();
        })(event)
      }
    >
      <Labelled title="Pack">
        <select {...register("pack")} className="field w-24">
          <Options of={packs.map(({ id }) => id)} />
        </select>
      </Labelled>
      <Labelled title="From">
        <input {...register("from")} className="field figures w-20" />
      </Labelled>
      <Labelled title="To">
        <input {...register("to")} className="field figures w-20" />
      </Labelled>
      <Labelled title="Ω (empty for a thermal link)">
        <input {...register("ohms")} inputMode="decimal" className="field figures w-28" />
      </Labelled>
      <button type="submit" className="btn">
        Add the coil
      </button>
      <Problem words={problem} />
    </form>
  );
}

interface PinFields {
  readonly plug: string;
  readonly pin: string;
  readonly terminal: string;
}

/** Adds a pin to an existing plug, or to a new one. */
export function AddPin({ terminals }: { terminals: readonly string[] }) {
  const { circuit } = useEditing();
  const [problem, add] = useAdding();
  const { register, handleSubmit, reset } = useForm<PinFields>({
    defaultValues: { plug: "", pin: "1", terminal: "" },
  });
  const free = terminals.filter(
    (terminal) => !circuit.connectors.some(({ pins }) => Object.values(pins).includes(terminal)),
  );
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      aria-label="Add a pin"
      onSubmit={(event) =>
        void handleSubmit(({ plug, pin, terminal }) => {
          const name = pin.trim();
          const made =
            plug === ""
              ? add({
                  do: "add",
                  list: "connectors",
                  item: {
                    id: nextName("X", [...circuit.parts, ...circuit.connectors]),
                    pins: { [name]: terminal },
                  },
                })
              : add({ do: "set", list: "connectors", id: plug, key: `pins.${name}`, value: terminal });
          if (made) reset();
        })(event)
      }
    >
      <Labelled title="Plug">
        <select {...register("plug")} className="field w-28">
          <option value="">new plug</option>
          <Options of={circuit.connectors.map(({ id }) => id)} />
        </select>
      </Labelled>
      <Labelled title="Pin">
        <input {...register("pin")} className="field figures w-16" />
      </Labelled>
      <Labelled title="Connects to">
        <select {...register("terminal")} className="field w-28">
          <option value="">choose</option>
          <Options of={free} />
        </select>
      </Labelled>
      <button type="submit" className="btn">
        Add the pin
      </button>
      <Problem words={problem} />
    </form>
  );
}

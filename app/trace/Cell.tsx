import type { Circuit } from "@core/circuit/circuit";
import { type CircuitEdit, editedCircuit } from "@core/circuit/circuitEdit";
import { problemText } from "@core/problem/problem";
import { createContext, useContext, useId, useRef } from "react";
import { useForm } from "react-hook-form";

interface Editing {
  readonly circuit: Circuit;
  /** Where a wire can end or a pin be plugged. */
  readonly terminals: readonly string[];
  /** Sends a change that was already checked. */
  readonly send: (edit: CircuitEdit) => void;
}
const EditingContext = createContext<Editing | null>(null);
export const EditingProvider = EditingContext.Provider;
export function useEditing(): Editing {
  const editing = useContext(EditingContext);
  if (!editing) throw new Error("a cell stands outside a table that can be edited");
  return editing;
}

/** Why a change does not fit the circuit; true if it does. */
export function fits(circuit: Circuit, edit: CircuitEdit): true | string {
  const next = editedCircuit(circuit, edit);
  if (next.ok) return true;
  const [problem] = next.problems;
  return problem ? problemText(problem) : "this value is not valid";
}

interface CellProps {
  /** Its name for screen readers. */
  readonly label: string;
  readonly value: string;
  /** The change that a typed text makes. */
  readonly edit: (text: string) => CircuitEdit;
  /** Terminals are chosen from a list, other text is typed. */
  readonly terminal?: boolean;
  readonly width?: string;
  /** Whether the value is only a guess, so that the same value typed by a person is a change. */
  readonly guess?: boolean;
}

/** One cell: checked against the whole circuit while it is typed, stored when it loses the focus or on Enter. */
export function Cell({ label, value, edit, terminal = false, width = "w-24", guess = false }: CellProps) {
  const { circuit, terminals, send } = useEditing();
  const id = useId();
  const { register, handleSubmit, formState, reset } = useForm({
    values: { text: value },
    mode: "onChange",
  });
  const problem = formState.errors.text?.message;
  const typed = useRef(false);
  const keep = handleSubmit(({ text }) => {
    if (text.trim() !== value || (guess && typed.current)) send(edit(text));
    typed.current = false;
  });
  const field = register("text", {
    validate: (text) => text.trim() === value || fits(circuit, edit(text)),
    onBlur: () => void keep(),
  });
  const shared = {
    "aria-label": label,
    "aria-invalid": problem !== undefined,
    "aria-describedby": problem ? id : undefined,
    className: `field figures min-h-11 px-1.5 text-base ${width} ${problem ? "border-danger" : ""}`,
  };
  return (
    <form
      className="relative"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
      onInput={() => {
        typed.current = true;
      }}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        typed.current = false;
        reset();
      }}
    >
      {terminal ? (
        <select {...shared} {...field}>
          {terminals.includes(value) || <option value={value}>{value}</option>}
          {terminals.map((choice) => (
            <option key={choice} value={choice}>
              {choice}
            </option>
          ))}
        </select>
      ) : (
        <input {...shared} {...field} autoComplete="off" spellCheck={false} />
      )}
      {problem && (
        <p
          id={id}
          role="alert"
          className="absolute top-full left-0 z-20 w-64 border-l-4 border-danger bg-card p-2 text-[0.9rem] text-danger"
        >
          {problem}
        </p>
      )}
    </form>
  );
}

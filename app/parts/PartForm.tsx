import { holesText } from "@core/match/holeText";
import { mounts, plugSeats, sides } from "@core/match/partFeature";
import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import { useFetcher } from "react-router";
import { coilField, fieldsOf } from "./partForm";
import type { PartsData } from "./partsView.server";

const packAndPlug = [
  ["resistor", "resistor pack"],
  ["connector", "plug with leads only"],
] as const;

/**
 * A part in the hand: what is seen and measured on it, as far as known. The old part's figures are shown beside the
 * fields, never in them, because what was not measured must not count as the same.
 */
export function PartForm({ match }: { match: PartsData }) {
  const fetcher = useFetcher<{ problem: string | null }>();
  const { part, place, old, fresh } = match;
  const like = old ?? fresh;
  const beside = fieldsOf(like, place, holesText(like?.holes ?? []));
  const [kind, setKind] = useState<string>(match.kind);
  const motor = kind === "motor";
  const body = kind !== "connector";
  const busy = fetcher.state !== "idle";
  const done = !busy && fetcher.data?.problem === null;
  const field: FieldOf = (name) => ({ name, beside: beside[name] ?? "" });
  return (
    <fetcher.Form method="post" className="grid gap-4 pb-3" key={match.part}>
      <input type="hidden" name="intent" value="typed" />
      <input type="hidden" name="part" value={part} />
      <input type="hidden" name="old" value={old?.number ?? ""} />
      {like && (
        <p className="text-soft">
          Leave empty what you cannot see; empty fields are not compared. The grey values are those of{" "}
          {like.number}.
        </p>
      )}
      <div className="grid gap-2 sm:grid-cols-3">
        <Text name="number" label="Number on it" required />
        <Text name="title" label="What the box says" required />
        <Text name="price" label="Price to the shop" figures />
      </div>
      {match.kind === "resistor" && place.pins.length > 0 ? (
        <KindChoice kind={kind} setKind={setKind} />
      ) : (
        <input type="hidden" name="kind" value={kind} />
      )}
      <PlugAndBody field={field} body={body} />
      {motor && (
        <>
          <Group title="From its label or the box">
            <Text {...field("ratedVolts")} label="Volts" figures />
            <Text {...field("ratedAmps")} label="Amps at those volts" figures />
            <Text {...field("stallAmps")} label="Stalled amps" figures />
            <Text {...field("ratedRpm")} label="Rpm" figures />
          </Group>
          <WheelAndHousing field={field} />
        </>
      )}
      {kind === "resistor" && place.coils.length > 0 && <PackOhms field={field} place={place} />}
      {(kind === "resistor" || kind === "connector") && place.pins.length > 0 && (
        <Group title="Wires to splice in, by pin: colour such as BK/YE">
          {place.pins.map((pin) => (
            <div key={pin} className="grid grid-cols-2 gap-2">
              <Text {...field(`leadColour ${pin}`)} label={`${pin}: colour`} />
              <Text {...field(`leadMm2 ${pin}`)} label="mm²" figures />
            </div>
          ))}
        </Group>
      )}
      {fetcher.data?.problem && (
        <p role="alert" className="text-danger">
          Not saved: {fetcher.data.problem}.
        </p>
      )}
      {/on the list already/.test(fetcher.data?.problem ?? "") && <Again />}
      <p className="flex flex-wrap items-center gap-3">
        <button type="submit" className="btn btn-main" disabled={busy}>
          Add it to the list and compare
        </button>
        <span role="status">{done ? "Added to the list and chosen as the new part above." : ""}</span>
      </p>
    </fetcher.Form>
  );
}

/** Lets a description replace one with the same number. */
export const Again = () => (
  <label className="flex min-h-11 items-center gap-2">
    <input type="checkbox" name="again" value="yes" className="size-5" />
    Replace the listed part with this number
  </label>
);

const yesNo = ["yes", "no"] as const;

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <fieldset>
      <legend className="pb-1 font-semibold">{title}</legend>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">{children}</div>
    </fieldset>
  );
}

/** A field's name and its placeholder. */
type FieldOf = (name: string) => FieldProps extends infer P ? Pick<P & FieldProps, "name" | "beside"> : never;

interface FieldProps {
  readonly name: string;
  readonly label: string;
  /** The old part's value. */
  readonly beside?: string;
}

interface TextProps extends FieldProps {
  readonly required?: boolean;
  readonly figures?: boolean;
  readonly wide?: boolean;
}

const Text = ({ name, label, beside, required, figures, wide }: TextProps) => (
  <label className={`grid content-end gap-0.5 text-soft ${wide ? "col-span-2" : ""}`}>
    {label}
    <input
      name={name}
      required={required}
      placeholder={beside}
      inputMode={figures ? "decimal" : "text"}
      maxLength={120}
      autoComplete="off"
      className="field w-full text-ink"
    />
  </label>
);

const Select = ({ name, label, beside, of }: FieldProps & { readonly of: readonly string[] }) => (
  <label className="grid content-end gap-0.5 text-soft">
    {label}
    <select name={name} defaultValue="" className="field w-full text-ink">
      <option value="">{beside ? `? (old: ${beside})` : "not known"}</option>
      {of.map((own) => (
        <option key={own} value={own}>
          {own}
        </option>
      ))}
    </select>
  </label>
);

interface KindChoiceProps {
  readonly kind: string;
  readonly setKind: Dispatch<SetStateAction<string>>;
}

/** What kind of part it is. */
function KindChoice({ kind, setKind }: KindChoiceProps) {
  return (
    <label className="grid gap-0.5 text-soft sm:w-72">
      It is
      <select
        name="kind"
        value={kind}
        onChange={(event) => setKind(event.target.value)}
        className="field text-ink"
      >
        {packAndPlug.map(([value, title]) => (
          <option key={value} value={value}>
            {title}
          </option>
        ))}
      </select>
    </label>
  );
}

interface PlugAndBodyProps {
  readonly field: FieldOf;
  readonly body: boolean;
}

/** Plug and body. */
function PlugAndBody({ field, body }: PlugAndBodyProps) {
  return (
    <Group title="Plug and body">
      <Text {...field("pins")} label="Pins in its plug" figures />
      <Select {...field("tab")} label="Plug tab" of={sides} />
      <Select {...field("seat")} label="Plug sits at" of={plugSeats} />
      <Text {...field("tailMm")} label="Wire to its plug, mm" figures />
      <Select {...field("lead")} label="Loose lead or adaptor in the box" of={yesNo} />
      {body && (
        <>
          <Text {...field("holes")} label="Holes: 52 between, or the three sides, in mm" wide />
          <Text {...field("screws")} label="Screws" figures />
          <Select {...field("mount")} label="Held by" of={mounts} />
          <Select {...field("notch")} label="Corner cut out at" of={["none", ...sides]} />
          <Select {...field("key")} label="Key projects at" of={["none", ...sides]} />
          <Select {...field("gasket")} label="Gasket" of={yesNo} />
          <Select {...field("climate")} label="Climate" of={["manual", "automatic"]} />
        </>
      )}
    </Group>
  );
}

/** Wheel and housing. */
const WheelAndHousing = ({ field }: { readonly field: FieldOf }) => (
  <Group title="Wheel and housing">
    <Select
      {...field("turns")}
      label="Direction of rotation, seen on the wheel"
      of={["clockwise", "anticlockwise"]}
    />
    <Select {...field("wheelIncluded")} label="Wheel included" of={yesNo} />
    <Text {...field("outerMm")} label="Wheel diameter, mm" figures />
    <Text {...field("heightMm")} label="Wheel height, mm" figures />
    <Text {...field("boreMm")} label="Bore, mm" figures />
    <Select {...field("shaft")} label="Shaft" of={["round", "flat", "splined"]} />
    <Select {...field("hold")} label="Wheel fixed by" of={["pressed", "clip", "nut"]} />
    <Select {...field("clip")} label="Clip for the wheel" of={yesNo} />
    <Select {...field("ventTube")} label="Vent tube" of={yesNo} />
    <Select {...field("drainNose")} label="Drain nose" of={yesNo} />
  </Group>
);

interface PackOhmsProps {
  readonly field: FieldOf;
  readonly place: PartsData["place"];
}

/** Ohms between the terminals of the resistor pack. */
function PackOhms({ field, place }: PackOhmsProps) {
  return (
    <Group title="Ohms, measured with resistor pack unplugged">
      {place.coils.map((coil) => (
        <Text
          key={coilField(coil)}
          {...field(coilField(coil))}
          label={`${coil.from} to ${coil.to}`}
          figures
        />
      ))}
    </Group>
  );
}

import type { TestName } from "@core/predict/observations/index";
import type { AnyTest } from "@core/predict/observations/observation";
import { seenText } from "@words/seenName";
import { wordingOf } from "@words/tests/index";
import { X } from "lucide-react";
import {
  otherSide,
  ownerOf,
  type ProbeTarget,
  pullable,
  targetName,
  testAt,
  testsAt,
} from "../sheet/probeTarget";
import { type ShownSetup, withPlug } from "../sheet/shownSetup";
import type { BayData } from "./bayView.server";

interface BayProbeProps {
  readonly bay: BayData;
  readonly target: ProbeTarget;
  readonly setup: ShownSetup;
  readonly onSetup: (setup: ShownSetup) => void;
  /** The meter's other lead, once it is placed. */
  readonly other: string | null;
  readonly placing: boolean;
  readonly onPlace: (placing: boolean) => void;
  readonly onLook: (test: AnyTest) => void;
  readonly onOpen: (place: string) => void;
  readonly onClose: () => void;
  readonly busy: boolean;
}

/** The actions possible at what was tapped, with their minutes. */
export function BayProbe(props: BayProbeProps) {
  const { bay, target, setup, onSetup, other, placing, onPlace, onLook, onOpen, onClose, busy } = props;
  const { circuit } = bay;
  const battery = circuit.parts.find(({ kind }) => kind === "battery")?.id ?? "";
  const name = targetName(target);
  const owner = target.kind === "point" ? ownerOf(circuit, name) : name;
  const shut = bay.places.find((place) => !place.open && place.parts.includes(owner));
  const black = other ?? `${battery}.-`;
  const make = (test: TestName, at: string): AnyTest => testAt(target, test, setup, at);
  const plugs = pullable(circuit, target);
  const last = bay.acts.findLast(({ act }) => act === "look");
  const beyond = target.kind === "point" ? otherSide(circuit, name, setup.unplugged) : null;
  return (
    <section
      aria-labelledby="at"
      className="sheet-card grid gap-2 p-3 tall-phone:fixed tall-phone:inset-x-0 tall-phone:bottom-[var(--rail)] tall-phone:z-30 tall-phone:max-h-[56vh] tall-phone:overflow-y-auto tall-phone:border-t-2 tall-phone:border-ink"
    >
      <BayProbeHead circuit={circuit} name={name} onClose={onClose} />
      {last && (
        <p className="border-b border-rule pb-1 text-base md:hidden" aria-hidden="true">
          {last.what}: <b>{last.came}</b>
        </p>
      )}
      {shut && (
        <button type="button" className="btn btn-main" disabled={busy} onClick={() => onOpen(shut.id)}>
          Open {shut.words} first, {shut.minutes}
        </button>
      )}
      <TestsHere
        circuit={circuit}
        target={target}
        busy={busy}
        onLook={onLook}
        make={make}
        battery={battery}
        bay={bay}
        black={black}
      />
      {target.kind === "point" && (
        <OtherLead black={seenText(circuit, black)} placing={placing} onPlace={onPlace} beyond={beyond} />
      )}
      {plugs.length > 0 && <PlugsHere plugs={plugs} setup={setup} onSetup={onSetup} />}
    </section>
  );
}

interface DoProps {
  readonly busy: boolean;
  readonly onDo: () => void;
  readonly minutes: string | undefined;
  readonly children: React.ReactNode;
}

const Do = ({ busy, onDo, minutes, children }: DoProps) => (
  <button type="button" className="btn px-2.5" disabled={busy} onClick={onDo}>
    <span>
      {children}
      <span className="text-soft">, {minutes}</span>
    </span>
  </button>
);

interface BayProbeHeadProps {
  readonly circuit: BayProbeProps["bay"]["circuit"];
  readonly name: string;
  readonly onClose: BayProbeProps["onClose"];
}

/** What is under the probe. */
function BayProbeHead({ circuit, name, onClose }: BayProbeHeadProps) {
  return (
    <div className="flex items-start justify-between gap-2">
      <h2 id="at" className="font-semibold">
        {seenText(circuit, name)}
      </h2>
      <button
        type="button"
        className="grid size-11 shrink-0 place-items-center"
        onClick={onClose}
        aria-label="Remove the instrument"
      >
        <X aria-hidden="true" className="size-5" />
      </button>
    </div>
  );
}

interface TestsHereProps {
  readonly circuit: BayProbeProps["bay"]["circuit"];
  readonly target: BayProbeProps["target"];
  readonly busy: BayProbeProps["busy"];
  readonly onLook: BayProbeProps["onLook"];
  readonly make: (test: TestName, at: string) => AnyTest;
  readonly battery: string;
  readonly bay: BayProbeProps["bay"];
  readonly black: string;
}

/** Tests possible there, with their minutes. */
function TestsHere({ circuit, target, busy, onLook, make, battery, bay, black }: TestsHereProps) {
  return (
    <div className="flex flex-wrap gap-1.5 text-base">
      {testsAt(circuit, target).flatMap((test) =>
        test === "light"
          ? (["+", "-"] as const).map((post) => (
              <Do
                key={post}
                busy={busy}
                onDo={() => onLook(make("light", `${battery}.${post}`))}
                minutes={bay.testMinutes.light}
              >
                Light from {post === "+" ? "feed" : "ground"}
              </Do>
            ))
          : [
              <Do
                key={test}
                busy={busy}
                onDo={() => onLook(make(test, black))}
                minutes={bay.testMinutes[test]}
              >
                {wordingOf(test).action}
              </Do>,
            ],
      )}
    </div>
  );
}

interface OtherLeadProps {
  readonly black: string;
  readonly placing: BayProbeProps["placing"];
  readonly onPlace: BayProbeProps["onPlace"];
  readonly beyond: string | null;
}

/** Where the meter's other lead is. */
function OtherLead({ black, placing, onPlace, beyond }: OtherLeadProps) {
  return (
    <p className="flex flex-wrap items-center gap-2 text-base">
      Black lead on <b>{black}</b>
      <button
        type="button"
        className="min-h-11 underline"
        aria-pressed={placing}
        onClick={() => onPlace(!placing)}
      >
        {placing ? "tap the point for the black lead" : "move it"}
      </button>
      {beyond && <span>Other side of the plug: {beyond}.</span>}
    </p>
  );
}

interface PlugsHereProps {
  readonly plugs: string[];
  readonly setup: BayProbeProps["setup"];
  readonly onSetup: BayProbeProps["onSetup"];
}

/** Plugs that can be disconnected there. */
function PlugsHere({ plugs, setup, onSetup }: PlugsHereProps) {
  return (
    <div className="flex flex-wrap gap-1.5 text-base">
      {plugs.map((id) => (
        <button
          key={id}
          type="button"
          className="btn border-dashed px-2.5"
          aria-pressed={setup.unplugged.includes(id)}
          onClick={() => onSetup(withPlug(setup, id))}
        >
          {setup.unplugged.includes(id) ? `Reconnect ${id}` : `Unplug ${id}`}
        </button>
      ))}
    </div>
  );
}

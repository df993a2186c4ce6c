import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import type { MotorPageData } from "../motorPageView.server";
import { RecordingActions } from "../RecordingActions";
import { BringSound } from "./BringSound";
import { Heard, type SoundLine } from "./HeardSound";
import { useBringSound } from "./useBringSound";

/** The blower's sound at two or three speeds: which tones follow the speed and which do not. */
export function SoundView({ page }: { page: MotorPageData }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const sounds = page.traces.flatMap((line) =>
    line.record.kind === "sound" ? [{ ...line, record: line.record }] : [],
  );
  const sound = sounds.find(({ id }) => id === chosen) ?? sounds.filter(({ struck }) => !struck).at(-1);
  const bring = useBringSound(page, () => setChosen(null));
  return (
    <div className="grid min-w-0 gap-4">
      <BringSound page={page} {...bring} />
      {!sound && <p className="text-base text-soft">No recordings yet.</p>}
      {sound && (
        <>
          <SoundChoice sound={sound} setChosen={setChosen} sounds={sounds} page={page} />
          <Heard page={page} sound={sound} />
        </>
      )}
    </div>
  );
}

interface SoundChoiceProps {
  readonly sound: SoundLine;
  readonly setChosen: Dispatch<SetStateAction<string | null>>;
  readonly sounds: readonly SoundLine[];
  readonly page: MotorPageData;
}

/** Which recording is shown. */
function SoundChoice({ sound, setChosen, sounds, page }: SoundChoiceProps) {
  return (
    <div className="flex flex-wrap items-end gap-3 text-base">
      <label className="grid min-w-0 text-soft">
        recordings
        <select
          className="field max-w-full text-ink"
          value={sound.id}
          onChange={(event) => setChosen(event.target.value)}
        >
          {sounds.map((line) => (
            <option key={line.id} value={line.id}>
              {line.record.name}, {line.when} {line.time}
              {line.struck ? ", deleted" : ""}
            </option>
          ))}
        </select>
      </label>
      <RecordingActions page={page} trace={sound} />
    </div>
  );
}

import { memo, useEffect, useState, useSyncExternalStore } from "react";

const never = () => () => {};
/** Whether this browser, on this page, can do a thing; false while the server draws the page. */
const useCan = (can: () => boolean): boolean => useSyncExternalStore(never, can, () => false);

const kept = {
  read: (name: string): boolean => {
    try {
      return localStorage.getItem(name) === "on";
    } catch {
      return false;
    }
  },
  write: (name: string, on: boolean): void => {
    try {
      localStorage.setItem(name, on ? "on" : "off");
    } catch {
      // Not kept for the next page: nothing else is lost.
    }
  },
};

function useKept(name: string): [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(false);
  useEffect(() => setOn(kept.read(name)), [name]);
  return [
    on,
    (next) => {
      kept.write(name, next);
      setOn(next);
    },
  ];
}

/** Holds the screen on while the page is looked at. */
function useWakeLock(on: boolean): void {
  useEffect(() => {
    if (!on) return;
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const hold = async (): Promise<void> => {
      if (document.visibilityState !== "visible") return;
      try {
        const held = await navigator.wakeLock.request("screen");
        if (left) await held.release();
        else lock = held;
      } catch {
        // Refused, on a low battery say: the screen dims as it always did.
      }
    };
    void hold();
    // The browser lets the lock go with the page out of sight.
    const again = (): void => void hold();
    document.addEventListener("visibilitychange", again);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, [on]);
}

/** Says a text whenever it changes, by the browser's own voice. */
function useSpoken(on: boolean, text: string): void {
  useEffect(() => {
    if (!on || text === "") return;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
    return () => window.speechSynthesis.cancel();
  }, [on, text]);
}

/** For hands that are busy: the next test said aloud, the screen kept on. Only what this browser can do is offered. */
export const HandsBusy = memo(function HandsBusy({ say }: { say: string }) {
  const canSpeak = useCan(() => "speechSynthesis" in window);
  const canWake = useCan(() => "wakeLock" in navigator);
  const [speaks, setSpeaks] = useKept("airway:speaks");
  const [awake, setAwake] = useKept("airway:awake");
  useSpoken(canSpeak && speaks, say);
  useWakeLock(canWake && awake);
  if (!canSpeak && !canWake) return null;
  return (
    <fieldset className="flex flex-wrap gap-2" aria-label="Hands-free">
      {canSpeak && (
        <Toggle
          on={speaks}
          onTurn={setSpeaks}
          title={speaks ? "reads the next test aloud" : "read the next test aloud"}
        />
      )}
      {canWake && (
        <Toggle on={awake} onTurn={setAwake} title={awake ? "screen stays on" : "keep the screen on"} />
      )}
    </fieldset>
  );
});

interface ToggleProps {
  readonly on: boolean;
  readonly onTurn: (on: boolean) => void;
  readonly title: string;
}

function Toggle({ on, onTurn, title }: ToggleProps) {
  return (
    <button
      type="button"
      className="btn min-h-11 px-3 text-base aria-pressed:bg-[var(--mark)]"
      aria-pressed={on}
      onClick={() => onTurn(!on)}
    >
      {title}
    </button>
  );
}

import { memo, useEffect, useState, useSyncExternalStore } from "react";

const never = () => () => {};
/** Whether this browser supports something on this page; false during server rendering. */
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
      // Not kept for the next page, which loses nothing.
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

/** Keeps the screen on while the page is visible. */
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
        // Refused, for example on a low battery: the screen dims as usual.
      }
    };
    void hold();
    // The browser releases the lock when the page is hidden.
    const again = (): void => void hold();
    document.addEventListener("visibilitychange", again);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, [on]);
}

/** Speaks a text whenever it changes, with the browser's own voice. */
function useSpoken(on: boolean, text: string): void {
  useEffect(() => {
    if (!on || text === "") return;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
    return () => window.speechSynthesis.cancel();
  }, [on, text]);
}

/** For busy hands: the next test spoken aloud, and the screen kept on. Only what this browser supports is shown. */
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

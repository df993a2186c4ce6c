import { LRUCache } from "lru-cache";

/** How waits grow with wrong guesses: none for the first few, then one that doubles. */
export interface GrowingWait {
  readonly free: number;
  readonly firstMilliseconds: number;
  readonly longestMilliseconds: number;
}

/** Never a wait. */
export const noWait: GrowingWait = {
  free: Number.POSITIVE_INFINITY,
  firstMilliseconds: 0,
  longestMilliseconds: 0,
};

interface Guesses {
  readonly wrong: number;
  readonly shutUntil: number;
}

const none: Guesses = { wrong: 0, shutUntil: Number.NEGATIVE_INFINITY };
const placesKept = 1000;

function afterOneMore({ wrong }: Guesses, { free, ...wait }: GrowingWait, now: number): Guesses {
  const waited = wrong - free;
  const milliseconds =
    waited < 0 ? 0 : Math.min(wait.longestMilliseconds, wait.firstMilliseconds * 2 ** waited);
  return { wrong: wrong + 1, shutUntil: now + milliseconds };
}

/**
 * Growing waits after wrong guesses, for each place they come from and for all places together. A place where somebody
 * has signed in before waits only after its own wrong guesses, so guesses made elsewhere cannot lock it out.
 * @param now milliseconds on a clock that only moves forward
 */
export class GuessLimit {
  private readonly places = new LRUCache<string, Guesses>({ max: placesKept });
  private readonly known = new LRUCache<string, true>({ max: placesKept });
  private overall: Guesses = none;

  constructor(
    private readonly waits: { readonly place: GrowingWait; readonly overall: GrowingWait },
    private readonly now: () => number = () => performance.now(),
  ) {}

  /**
   * Begins a guess. It counts as wrong until it is known to be right, so that guesses made side by side gain nothing.
   * @returns milliseconds to wait, and then the guess must not be made; or what to call once it was right
   */
  begin(place: string): { readonly waitMilliseconds: number } | { readonly right: () => void } {
    const now = this.now();
    const own = this.places.get(place) ?? none;
    const before = this.overall;
    const shutUntil = this.known.has(place) ? own.shutUntil : Math.max(own.shutUntil, before.shutUntil);
    if (now < shutUntil) return { waitMilliseconds: shutUntil - now };
    this.places.set(place, afterOneMore(own, this.waits.place, now));
    this.overall = afterOneMore(before, this.waits.overall, now);
    return {
      right: () => {
        this.known.set(place, true);
        this.places.delete(place);
        this.overall = { ...before, wrong: 0 };
      },
    };
  }

  /** Makes a place a stranger's again. */
  forget(place: string): void {
    this.known.delete(place);
  }
}

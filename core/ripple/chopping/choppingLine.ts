import { type CurrentRecording, medianOf, rangeOf, type Stretch } from "../../signal/currentRecording";
import { peaksOf, type Spectrum, samplesForLines, spectrumOf } from "../../signal/spectrum";
import { ridgesOf } from "../rhythm/driftingRidge";
import { fastestHumpHz, slowestHumpHz } from "../rhythm/humpRhythm";
import { isOrder, mostOrders, type TurnComb, turnComb } from "../turn/turnComb";
import { rpmWithin } from "../turn/turnCount";
import { lineJitter } from "./lineJitter";

/** Height of a line, as a multiple of the median height, from which it counts. */
const standsOut = 12;
/** Largest drift of a clock's phase over the recording, in radians. */
const clockStrays = 0.18;
/** Smallest drift of the phase of something that turns with the motor, in radians. */
const motorStrays = 0.3;
/** Smallest ratio of a motor line's drift in time to the clock's. */
const timesStray = 4;
/** Largest ratio of the jitter of a clock's line to what noise alone causes (see `lineJitter`). */
const clockTrembles = 1.5;
/** Jitter of a line beyond noise, in standard deviations, from which it belongs to the motor and not to a clock. */
const surelyTrembles = 3;
/**
 * Largest jitter of a clock's line, in standard deviations, as a share of the most any line has. Noise near a clock is not
 * purely random.
 */
const clockDeviates = 0.4;
/** Parts into which the recording is cut to follow a phase. */
const parts = 8;
/** Height of a second rhythm, as a share of the tallest, from which it counts. */
const secondShare = 0.12;
/** Most spectral peaks examined. */
const mostPeaks = 24;
/** Distances from a clock's line, in bins, between which nothing tall may stand. */
const [besideFrom, besideTo] = [4, 40];
/**
 * Largest height beside a clock's line, as a share of it, between `besideFrom` and `besideTo` bins away. A drifting rhythm
 * is a ridge and has more.
 */
const besideShare = 0.35;
/** Phase drift in radians below which a line is certainly a clock. */
const surelySteady = 0.05;
/** Largest height beside such a certain clock, as a share of its line. */
const besideShareSteady = 0.8;
/** Height of a rival line, as a share of the tallest, from which it is considered. */
const rivalShare = 0.3;
const orders: readonly number[] = Array.from({ length: mostOrders }, (_, i) => i + 1);
/** Orders above this can be the ripples of a turn: no commutator makes fewer than eight. */
const fewestHumps = 7.5;
/** Share of a comb's lines, up to twice the ripple frequency, that must stand out. */
const combShare = 0.6;
/** Height of a comb line, as a multiple of the median, from which it stands out. */
const combOver = 5;
/** Multiple of the ripple frequency beyond which the lines of its comb are too low to be seen. */
const combFalls = 2;
/** Evidence, as a natural logarithm of odds, from which lines belong to one rhythm's turn. */
const leastAComb = 3;
/** The same, from which that is certain even against another rhythm. */
const surelyAComb = 7;
/** Drift of a ridge over the recording, in bins of its own, from which it counts as one. */
const ridgeMoves = 2;
/** Distance in bins within which a ridge and a line of the whole recording are the same. */
const ridgeBins = 3;
/** Most ridges examined. */
const mostRidges = 4;
/** Lowest frequency at which a mark once per turn is searched, in hertz. */
const slowestMarkHz = 5;
/** Largest difference, in bins, between two frequencies that are the same. */
const sameWithin = 0.015;
/** Largest difference, in bins, between two frequencies that may be the same. */
const nearlyWithin = 0.25;

/** A module's PWM by its frequency; two rhythms of which either may be it; or none. */
export type FoundChopping =
  | { readonly hz: number }
  | { readonly rivals: readonly [number, number] }
  | { readonly none: true };

/** A line of the spectrum, and how far its phase drifts over the recording. */
interface Line {
  readonly hz: number;
  readonly magnitude: number;
  readonly radians: number;
}

/** What is known of the turn before the ripples are read: ripples per turn, or an approximate rpm; null for neither. */
export type KnownTurn = { readonly perTurn: number } | { readonly rpm: number } | null;

/** Looks for the line of a module's PWM among the current's lines. */
export function findChopping(trace: CurrentRecording, stretch: Stretch, turn: KnownTurn): FoundChopping {
  const count = samplesForLines(stretch);
  return count === null ? { none: true } : new LineSearch(trace, stretch.from, count, turn).found();
}

class LineSearch {
  private readonly spectrum: Spectrum;
  private readonly peaks: readonly { readonly hz: number; readonly magnitude: number }[];
  private readonly median: number;
  private readonly tallest: number;
  /** The tall lines in the ripples' frequency range. */
  private readonly strong: readonly Line[];

  constructor(
    private readonly trace: CurrentRecording,
    private readonly from: number,
    private readonly count: number,
    private readonly turn: KnownTurn,
  ) {
    const { amps, rateHz } = trace;
    this.spectrum = spectrumOf(amps, rateHz, { from, count });
    this.median = medianOf(this.spectrum.magnitude);
    this.peaks = peaksOf(this.spectrum, slowestHumpHz, rateHz / 2, mostPeaks).filter(
      ({ magnitude }) => magnitude > standsOut * this.median,
    );
    this.tallest = this.peaks[0]?.magnitude ?? 0;
    this.strong = this.peaks
      .filter(({ magnitude, hz }) => magnitude > secondShare * this.tallest && hz <= fastestHumpHz)
      .map(({ hz, magnitude }) => ({ hz, magnitude, radians: this.strays(hz) }));
  }

  found(): FoundChopping {
    const above = this.peaks.find(
      ({ hz, magnitude }) => hz > fastestHumpHz && magnitude > secondShare * this.tallest,
    );
    if (above && this.strays(above.hz) < 2 * motorStrays) return { hz: above.hz };
    const steadier = this.besideWhatStrays();
    const told = steadier.length > 0 ? steadier : this.besideWhatTrembles();
    const clocks = told.length > 0 ? told : this.besideAComb();
    return clocks.length > 0 ? { hz: Math.min(...clocks.map(({ hz }) => hz)) } : this.rivals();
  }

  /** How far a line's phase departs from a clock's over the recording, in radians. */
  private strays(hz: number): number {
    const { amps, rateHz } = this.trace;
    return Math.sqrt(-2 * Math.log(Math.min(1, clockShare(amps, rateHz, this.from, this.count, hz))));
  }

  private isMultiple(one: number, other: number): boolean {
    return isMultiple(one, other, this.spectrum.binHz);
  }

  private turnTogether(one: number, other: number, bins: number): boolean {
    return turnTogether(one, other, bins * this.spectrum.binHz, this.turn);
  }

  private isOrder(ripple: number, order: number, other: number): boolean {
    return isOrder(ripple, order, other, nearlyWithin * this.spectrum.binHz);
  }

  /** True if nothing tall is close to a line except some other known lines. */
  private standsAlone(
    hz: number,
    beside: readonly { readonly hz: number }[] = [],
    share: number = besideShare,
  ): boolean {
    const { magnitude, binHz } = this.spectrum;
    const bin = Math.round(hz / binHz);
    const isOther = (at: number): boolean =>
      beside.some((other) => Math.abs(at - other.hz / binHz) < besideFrom);
    for (let off = besideFrom; off <= besideTo; off++)
      for (const at of [bin - off, bin + off])
        if ((magnitude[at] ?? 0) > share * (magnitude[bin] as number) && !isOther(at)) return false;
    return true;
  }

  /**
   * Clocks beside a drifting rhythm: everything that turns with the shaft drifts by the same time, whatever its order.
   */
  private besideWhatStrays(): Line[] {
    const { strong } = this;
    const alone = strong.filter(
      ({ hz, magnitude, radians }) =>
        radians < clockStrays &&
        this.standsAlone(hz, [], radians < surelySteady ? besideShareSteady : besideShare) &&
        // A harmonic belongs to the same group as its fundamental.
        !strong.some((base) => base.hz < hz && base.magnitude > magnitude && this.isMultiple(base.hz, hz)),
    );
    // A clock can hide a rhythm that drifts far: that is a low ridge over the whole stretch, but tall in each short
    // part of it.
    const others = alone.length > 0 ? [...strong, ...this.ridgesBeside(alone)] : strong;
    return alone.filter(({ hz, radians }) =>
      others.some(
        (other) =>
          other.radians > motorStrays &&
          other.radians / other.hz > (timesStray * radians) / hz &&
          !this.isMultiple(other.hz, hz),
      ),
    );
  }

  private ridgesBeside(lines: readonly Line[]): { readonly hz: number; readonly radians: number }[] {
    const { amps, rateHz } = this.trace;
    return ridgesOf(amps, rateHz, this.from, this.count)
      .filter(
        (ridge) =>
          ridge.driftHz > ridgeMoves * ridge.binHz &&
          lines.every(({ hz }) => Math.abs(hz - ridge.hz) > ridgeBins * ridge.binHz),
      )
      .slice(0, mostRidges)
      .map(({ hz, driftHz }) => ({ hz, radians: Math.PI * driftHz * (this.count / rateHz) }));
  }

  /** Clocks at a steady speed: there, too, ripples come slightly early or late, and a clock does not. */
  private besideWhatTrembles(): Line[] {
    const { amps, rateHz } = this.trace;
    const told = this.strong.map((line) => ({
      ...line,
      jitter: lineJitter(amps, rateHz, this.from, this.count, line.hz),
    }));
    const trembling = told.filter(
      ({ jitter }) => jitter && jitter.deviations > surelyTrembles && jitter.ratio > clockTrembles,
    );
    if (trembling.length === 0) return [];
    const most = Math.max(...trembling.map(({ jitter }) => jitter?.deviations ?? 0));
    return told.filter(
      (line) =>
        line.jitter &&
        line.jitter.ratio < clockTrembles &&
        line.jitter.deviations < Math.max(surelyTrembles, clockDeviates * most) &&
        // Close to a motor line the parts cannot separate the two, and the apparent drift is their beat.
        (line.radians < clockStrays || trembling.some(({ hz }) => this.beats(hz, line.hz))) &&
        this.standsAlone(line.hz, trembling) &&
        trembling.every(({ hz }) => !this.isMultiple(hz, line.hz)) &&
        (this.turn === null
          ? this.explainsTheRest(line, trembling)
          : trembling.every(
              (ripple) => this.towers(line, ripple) || !this.turnTogether(ripple.hz, line.hz, nearlyWithin),
            )),
    );
  }

  /**
   * Clocks beside ripples that neither drift nor jitter: unequal bars, a bad bar or a mark make lines at orders of the
   * turn, which belong to the ripples and not to the clock.
   */
  private besideAComb(): Line[] {
    const clocks = this.strong.filter(({ hz, radians }) => radians < clockStrays && this.standsAlone(hz));
    return clocks.filter((clock) =>
      this.strong.some((ripple) => {
        if (ripple.hz === clock.hz || this.isMultiple(ripple.hz, clock.hz)) return false;
        const lesser = this.lesserLines([ripple, clock]);
        const own = this.combOf(ripple, lesser);
        const other = this.combOf(clock, lesser);
        return (
          own !== null &&
          own.evidence > leastAComb &&
          own.evidence > (other?.evidence ?? 0) + surelyAComb &&
          (this.towers(clock, ripple) || !this.isOrder(ripple.hz, own.perTurn, clock.hz))
        );
      }),
    );
  }

  /** Lines that stand out a little, are not harmonics of two tall ones, and are not close to a taller one. */
  private lesserLines(tall: readonly Line[]): readonly number[] {
    const { binHz } = this.spectrum;
    const standing = peaksOf(this.spectrum, slowestMarkHz, 2 * fastestHumpHz, mostPeaks).filter(
      ({ magnitude }) => magnitude > combOver * this.median,
    );
    return standing
      .filter(
        ({ hz, magnitude }) =>
          tall.every((line) => !this.isMultiple(line.hz, hz)) &&
          standing.every(
            (taller) => taller.magnitude <= magnitude || Math.abs(taller.hz - hz) > besideFrom * binHz,
          ),
      )
      .map(({ hz }) => hz);
  }

  /** The turn that the lines beside some ripples support, as far as it is not known. */
  private combOf({ hz }: Line, lines: readonly number[]): TurnComb | null {
    const { turn } = this;
    const counts =
      turn === null
        ? orders.filter((order) => order > fewestHumps)
        : "perTurn" in turn
          ? [turn.perTurn]
          : orders.filter((order) => Math.abs((60 * hz) / order / turn.rpm - 1) <= rpmWithin);
    return turnComb(hz, lines, counts, nearlyWithin * this.spectrum.binHz);
  }

  /**
   * True if a line is taller than the ripples and far above them in frequency: only a multiple of the ripple frequency
   * could be.
   */
  private towers(line: Line, ripple: Line): boolean {
    return line.hz > combFalls * ripple.hz && line.magnitude > ripple.magnitude;
  }

  /** True if two lines are too close to separate in one part of the stretch. */
  private beats(one: number, other: number): boolean {
    return Math.abs(one - other) < 2 * parts * this.spectrum.binHz;
  }

  /**
   * Bad bars make a comb of lines, and a low one of them is nearly as steady as a clock. With a real clock, all other
   * lines belong to one turn with the ripples, are the clock's own harmonics, or are the mark far below; and the clock
   * is not a line of a comb itself.
   */
  private explainsTheRest({ hz }: Line, trembling: readonly Line[]): boolean {
    const others = this.strong.filter(
      (other) => other.hz !== hz && !this.isMultiple(hz, other.hz) && !this.beats(hz, other.hz),
    );
    return trembling.some((ripple) => {
      const rest = others.filter(
        (other) =>
          !this.isMultiple(ripple.hz, other.hz) &&
          other.hz * fewestHumps >= ripple.hz &&
          !this.beats(ripple.hz, other.hz),
      );
      const together = orders.some((order) => rest.every((line) => this.isOrder(ripple.hz, order, line.hz)));
      return together && !this.isOfComb(ripple.hz, hz);
    });
  }

  /**
   * True if a line is one of many orders of a turn shared with the ripples; far above the ripples a comb has died
   * away.
   */
  private isOfComb(ripple: number, hz: number): boolean {
    if (hz > combFalls * ripple) return false;
    const { magnitude, binHz } = this.spectrum;
    const stands = (at: number): boolean => {
      const bin = Math.round(at / binHz);
      return Math.max(...magnitude.subarray(bin - 1, bin + 2)) > combOver * this.median;
    };
    return orders.slice(1).some((order) => {
      if (order > mostOrders / 2 || !this.isOrder(ripple, order, hz)) return false;
      const once = ripple / order;
      const lines = orders
        .filter((line) => line < 2 * order && line % order !== 0)
        .map((line) => line * once)
        .filter((at) => Math.abs(at - hz) > once / 2 && at > slowestHumpHz);
      return lines.length > 0 && lines.filter(stands).length > combShare * lines.length;
    });
  }

  /** Two tall clock-steady rhythms that are not orders of one turn; or none. */
  private rivals(): FoundChopping {
    const [first, second] = this.peaks.filter(
      ({ magnitude, hz }) => magnitude > rivalShare * this.tallest && hz <= fastestHumpHz,
    );
    if (!first || !second || this.isMultiple(first.hz, second.hz)) return { none: true };
    const steady = this.strong.every(({ radians }) => radians < clockStrays);
    // If they drift a little, they are matched to the nearest order of a known turn; with an unknown turn any order
    // would fit.
    if (this.turnTogether(first.hz, second.hz, steady ? sameWithin : nearlyWithin)) return { none: true };
    const apart = this.standsAlone(first.hz, [second]) && this.strays(first.hz) < clockStrays;
    return steady || (this.turn !== null && apart) ? { rivals: [first.hz, second.hz] } : { none: true };
  }
}

/** True if one rhythm is a whole multiple of the other, to half a bin for its drift. */
function isMultiple(one: number, other: number, binHz: number): boolean {
  const [low, high] = one < other ? [one, other] : [other, one];
  const times = Math.round(high / low);
  return Math.abs(high - times * low) < 0.5 * binHz * times;
}

/**
 * True if two rhythms can be orders of one turn: both are whole multiples of a common frequency, which is close to the
 * rpm if that is known; and if ripples per turn are known, one of them has that order.
 */
function turnTogether(first: number, second: number, within: number, turn: KnownTurn): boolean {
  if (turn && "perTurn" in turn)
    return isOrder(first, turn.perTurn, second, within) || isOrder(second, turn.perTurn, first, within);
  const [low, high] = first < second ? [first, second] : [second, first];
  return orders.some(
    (order) =>
      (turn === null || Math.abs((60 * low) / order / turn.rpm - 1) <= rpmWithin) &&
      isOrder(low, order, high, within),
  );
}

/** How coherently a line's parts add up over the recording: near 1 for a clock, small if the rhythm drifts. */
function clockShare(amps: Float32Array, rateHz: number, from: number, count: number, hz: number): number {
  const length = Math.floor(count / parts);
  const { mean } = rangeOf(amps, { from, to: from + count });
  let [re, im, sizes] = [0, 0, 0];
  for (let part = 0; part < parts; part++) {
    let [a, b] = [0, 0];
    for (let i = 0; i < length; i++) {
      const at = from + part * length + i;
      const angle = (2 * Math.PI * hz * (part * length + i)) / rateHz;
      const weighed = ((amps[at] as number) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
      a += weighed * Math.cos(angle);
      b -= weighed * Math.sin(angle);
    }
    re += a;
    im += b;
    sizes += Math.hypot(a, b);
  }
  return Math.hypot(re, im) / Math.max(1e-300, sizes);
}

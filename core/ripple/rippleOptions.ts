/** What is known of a motor before its current is read. */
export interface RippleOptions {
  /** Commutator bars, if known. */
  readonly bars?: number | undefined;
  /** Magnet poles, one brush each; 2 by default. */
  readonly poles?: number | undefined;
  /** Speed by a tachometer, if known, within some 2 %. */
  readonly rpm?: number | undefined;
  /** Speed predicted by the circuit, within a third or so; limits where the ripples are searched. */
  readonly aboutRpm?: number | undefined;
  /** Frequency of a module's PWM, if known. */
  readonly choppingHz?: number | undefined;
  /** Called with the share of the work that is done, 0 to 1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

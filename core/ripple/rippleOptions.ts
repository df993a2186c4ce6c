/** What is known of a motor before its current is read. */
export interface RippleOptions {
  /** Commutator bars, where known. */
  readonly bars?: number | undefined;
  /** Magnet poles, one brush each; 2 unless given. */
  readonly poles?: number | undefined;
  /** Speed by a tachometer, where known, within some 2 %. */
  readonly rpm?: number | undefined;
  /** Speed as the circuit predicts it, within a third or so: keeps the ripples from being looked for elsewhere. */
  readonly aboutRpm?: number | undefined;
  /** Frequency of a module's PWM, where known. */
  readonly choppingHz?: number | undefined;
  /** Called with the share of the work that is done, 0 to 1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** Resistivity of annealed copper at 20 °C in ohm metres: IEC 60028 (1/58 Ω mm²/m, 1.7241e-8). */
export const copperOhmMetres = 1.7241e-8;

/**
 * Ohms of a copper conductor at 20 °C, R = ρ L / A.
 * @param metres length of the wire
 * @param mm2 cross-section in square millimetres
 */
export function copperOhms(metres: number, mm2: number): number {
  return (copperOhmMetres * metres) / (mm2 * 1e-6);
}

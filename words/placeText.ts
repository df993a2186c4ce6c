/** A place of the vehicle as the circuit names it: `under dash`; what needs no place is done from the seat. */
export const placeText = (place: string | null): string =>
  place === null ? "from the seat" : place.replaceAll("-", " ");

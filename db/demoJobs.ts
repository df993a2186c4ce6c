/** The form token of an open job of the demo workshop, by its place in the demo's list. */
export const demoJobToken = (place: number): string => `demo-${place}`;

/** The form token of a job the demo workshop closed before. */
export const demoPastToken = (place: number): string => `demo-past-${place}`;

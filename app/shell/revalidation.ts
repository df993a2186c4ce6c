import type { ShouldRevalidateFunctionArgs } from "react-router";

/**
 * For loaders that do not depend on readings: requested again after a form was sent or the page changed, but not after
 * an entry on the probe page.
 */
export const notForReadings = ({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  formMethod === undefined && currentUrl.href === nextUrl.href ? false : defaultShouldRevalidate;

import type { ShouldRevalidateFunctionArgs } from "react-router";

/**
 * For loaders that no reading changes: asked again after a form was sent or the page changed, and left alone when
 * the bench takes up what was entered on it.
 */
export const notForReadings = ({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  formMethod === undefined && currentUrl.href === nextUrl.href ? false : defaultShouldRevalidate;

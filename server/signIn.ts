import { actAs } from "@db/acting.server";
import type { NextFunction, Request, Response } from "express";
import { visitorAt } from "../app/people/signedIn.server";

/**
 * Finds out who sends a request from the place its door has found, and does what follows in their name. Whether they
 * may have the page is said by its route.
 * @param isLoopback whether the shop's computer is reached from itself only
 */
export const nameVisitor =
  (isLoopback: boolean) =>
  async (request: Request, response: Response, next: NextFunction): Promise<void> => {
    const { place } = response;
    response.visitor = place
      ? await visitorAt(place, request.headers.cookie ?? null, isLoopback)
      : { kind: "stranger" };
    actAs(response.visitor.kind === "signed-in" ? (response.visitor.person?.name ?? null) : null, next);
  };

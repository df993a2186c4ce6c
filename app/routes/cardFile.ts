import { findPhoto } from "@db/repositories/notes.server";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { data } from "react-router";
import { CurrentDrawSketch } from "../close/CurrentDrawSketch";
import { cardPdf } from "../close/cardPdf.server";
import { type CloseData, closeView } from "../close/closeView.server";
import { faultSheet, paperColour } from "../close/faultSheet.server";
import { followUpCalendar } from "../close/followUp.server";
import { jobViewAt } from "../job/jobView.server";
import { TurnSketch } from "../motor/TurnSketch";
import { standAlone } from "../sheet/saveSvg";
import type { Route } from "./+types/cardFile";

/** One turn of each recording of the motor's current, each as an SVG. */
const turnsOf = (card: CloseData) =>
  card.recordings.flatMap(({ name, setting, when, humps: ripple }) => {
    if (!ripple) return [];
    const markup = renderToStaticMarkup(createElement(TurnSketch, { humps: ripple }));
    const drawing = /<svg.*<\/svg>/s.exec(markup)?.[0];
    if (!drawing) return [];
    const box = { x: 0, y: 0, width: 260, height: 56 };
    const title = `One turn of the motor's current: ${name}, speed ${setting}, ${when} the repair, ripple ${ripple.verdict}`;
    return [{ title, svg: standAlone(drawing, box, paperColour, () => "sans", title) }];
  });

/** The current in the final check, as an SVG. */
function drawOf(card: CloseData) {
  if (card.draw.length === 0) return null;
  const drawing = renderToStaticMarkup(createElement(CurrentDrawSketch, { draw: card.draw }));
  const title = "The motor's current by speed, A, and the range expected in this circuit with the new part";
  return {
    title,
    svg: standAlone(drawing, { x: 0, y: 0, width: 360, height: 150 }, paperColour, () => "sans", title),
  };
}

/** The job card as a PDF, or its follow-up as a calendar file. */
export async function loader({ params, request }: Route.LoaderArgs) {
  const card = await closeView(params.id);
  const file = (content: BodyInit, type: string, name: string): Response =>
    new Response(content, {
      headers: {
        "Content-Type": type,
        "Content-Disposition": `attachment; filename="${name}"`,
        "X-Content-Type-Options": "nosniff",
      },
    });
  switch (params.kind) {
    case "pdf": {
      const view = await jobViewAt(params.id);
      const photos = await Promise.all(
        card.notes
          .filter(({ photo }) => photo)
          .map(async ({ id, words }) => ({ words, photo: await findPhoto(card.id, id) })),
      );
      const pdf = await cardPdf(card, {
        sheet: await faultSheet(view, card.closure?.fault ?? "unknown"),
        draw: drawOf(card),
        turns: turnsOf(card),
        photos: photos.flatMap(({ words, photo }) => (photo ? [{ words, jpeg: photo.jpeg }] : [])),
      });
      return file(new Uint8Array(pdf), "application/pdf", `job-${card.id}.pdf`);
    }
    case "ics": {
      const { closure } = card;
      if (!closure?.followUpOn) throw data("This job has no follow-up.", { status: 404 });
      const text = followUpCalendar({
        job: card.id,
        vehicle: card.vehicle,
        on: closure.followUpOn,
        why: closure.stopgap ?? closure.advice ?? closure.found,
        address: new URL(`/jobs/${card.id}/close`, request.url).href,
        made: new Date(),
      });
      return file(text, "text/calendar; charset=utf-8", `job-${card.id}-follow-up.ics`);
    }
    default:
      throw data("There is no such file.", { status: 404 });
  }
}

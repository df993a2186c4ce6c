import { createRequire } from "node:module";
import { percent } from "@core/units/wording";
import { verdictWords } from "@words/stateWords";
import SVGtoPDF from "svg-to-pdfkit";
import { PrintedPaper } from "../text/printedPaper.server";
import { printedText } from "../text/printedText";
import type { CloseData } from "./closeView.server";
import { customerPage } from "./customerWords";

// In WOFF format, which the PDF writer can read; the screen has the variable font.
const { resolve } = createRequire(import.meta.url);
const fontFile = (weight: 400 | 700): string =>
  resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
  );

const margin = 50;
const width = 595.28 - 2 * margin;
const foot = 780;

export interface CardPictures {
  /** The circuit with the fault marked. */
  readonly sheet: {
    readonly svg: string;
    readonly width: number;
    readonly height: number;
    readonly setting: string;
  } | null;
  /** The motor's current in the final check, if it was measured. */
  readonly draw: { readonly title: string; readonly svg: string } | null;
  /** One turn of the motor's current, if it was recorded. */
  readonly turns: readonly { readonly title: string; readonly svg: string }[];
  readonly photos: readonly { readonly words: string; readonly jpeg: Buffer }[];
}

/**
 * The job card as an A4 PDF: one page for the customer, and one for the file, which continues if its readings need
 * more.
 */
export function cardPdf(card: CloseData, pictures: CardPictures): Promise<Buffer> {
  const paper = new PrintedPaper({
    size: "A4",
    margin,
    info: { Title: `Job ${card.id}, ${card.vehicle}` },
  });
  const pieces: Buffer[] = [];
  const made = new Promise<Buffer>((done, failed) => {
    paper.on("data", (piece: Buffer) => pieces.push(piece));
    paper.on("end", () => done(Buffer.concat(pieces)));
    paper.on("error", failed);
  });
  paper.registerFont("plain", fontFile(400)).registerFont("bold", fontFile(700));
  customer(paper, card);
  paper.addPage();
  file(paper, card, pictures);
  paper.end();
  return made;
}

function customer(paper: PrintedPaper, card: CloseData): void {
  paper.font("bold").fontSize(20).text(card.vehicle);
  paper
    .font("plain")
    .fontSize(11)
    .text(`Job ${card.id}, arrived ${card.came}${card.closed ? `, done ${card.closed}` : ""}`);
  for (const { title, words } of customerPage(card)) {
    paper.moveDown(0.8).font("bold").fontSize(13).text(title);
    paper.font("plain").fontSize(12).text(words);
  }
  paper
    .moveDown()
    .fontSize(9)
    .text("Local rules and the maker's procedure come before anything stated here.");
}

function heading(paper: PrintedPaper, title: string): void {
  if (paper.y > foot - 40) paper.addPage();
  paper.moveDown(0.6).font("bold").fontSize(11).text(title, margin);
  paper.font("plain").fontSize(9.5);
}

function line(paper: PrintedPaper, text: string): void {
  if (paper.y > foot) paper.addPage();
  paper.text(text, margin, paper.y, { width });
}

/** Paints an SVG at the current position and does not move that position. */
function drawing(paper: PrintedPaper, svg: string, scale: number): void {
  const { y } = paper;
  paper.save();
  paper.translate(margin, y + 4).scale(scale);
  SVGtoPDF(paper, printable(svg), 0, 0, {
    assumePt: true,
    fontCallback: (_: string, bold: boolean) => (bold ? "bold" : "plain"),
  });
  paper.restore();
  paper.font("plain");
  paper.x = margin;
  paper.y = y;
}

/** Letters without the halo the screen paints behind them, and without characters the font lacks. */
const printable = (svg: string): string =>
  printedText(svg).replace(/<text\b[^>]*>/g, (tag) =>
    tag.replace(/\s(?:stroke|stroke-width|paint-order)="[^"]*"/g, ""),
  );

function file(
  paper: PrintedPaper,
  card: CloseData,
  { sheet, draw: sample, turns, photos }: CardPictures,
): void {
  const { closure, minutes, verdict } = card;
  paper.font("bold").fontSize(14).text(`Job ${card.id}, for the file: ${card.vehicle}`);
  paper
    .font("plain")
    .fontSize(9.5)
    .text(`${card.circuit}. Arrived ${card.came}. ${card.closed ? `Closed ${card.closed}.` : ""}`);
  heading(paper, "Complaint");
  line(paper, card.words || "not recorded");
  if (sheet) {
    heading(
      paper,
      `${closure && closure.fault !== "unknown" ? "The fault in the circuit" : "The circuit"}, on ${sheet.setting}`,
    );
    const scale = Math.min(width / sheet.width, 260 / sheet.height);
    if (paper.y + sheet.height * scale > foot) paper.addPage();
    drawing(paper, sheet.svg, scale);
    paper.y += sheet.height * scale + 8;
  }
  heading(paper, "Seen");
  for (const own of card.evidence)
    line(
      paper,
      `${own.number}. ${own.what}${own.heard ? " (complaint)" : ""}: ${own.result}${own.source ? ` (by ${own.source})` : ""}, ${own.time}${own.takenBy ? `, ${own.takenBy}` : ""}`,
    );
  heading(paper, "Verdict");
  line(paper, `${verdict.name}, ${percent(verdict.p)} (${verdictWords[verdict.state]})`);
  for (const reason of verdict.because) line(paper, `· ${reason}`);
  heading(paper, "Found and done");
  for (const { number, failed, words } of card.rounds) {
    if (card.rounds.length > 1) line(paper, `Round ${number}${failed ? ", the final check failed" : ""}:`);
    for (const work of words) line(paper, `· ${work}`);
  }
  if (card.doneBy.length > 0) line(paper, `Done by ${card.doneBy.join(", ")}.`);
  if (card.warranties.length > 0) line(paper, `Warranty: ${card.warranties.join("; ")}`);
  for (const remark of card.remarks) line(paper, `Remark: ${remark}`);
  if (card.found) line(paper, card.found);
  if (closure) {
    const faults = closure.findingWords.map(({ words }) => words);
    line(
      paper,
      `Fault: ${faults.length > 0 ? faults.join("; ") : closure.faultWords}. Root cause: ${closure.causeText}.`,
    );
    if (closure.stopgap)
      line(paper, `Temporary repair: ${closure.stopgap}; check again ${closure.followUp}.`);
    if (closure.advice) line(paper, `Advised: ${closure.advice}`);
  }
  if (minutes)
    line(
      paper,
      `${minutes.looks} tests, ${Math.round(minutes.looking)} min to the verdict${minutes.repair === null ? "" : `, ${Math.round(minutes.repair)} min for removal and refitting`}.`,
    );
  for (const { title, svg } of turns) {
    heading(paper, title);
    drawing(paper, svg, 1);
    paper.y += 62;
  }
  if (sample) {
    if (paper.y + 190 > foot) paper.addPage();
    heading(paper, sample.title);
    drawing(paper, sample.svg, 1);
    paper.y += 156;
  }
  heading(paper, "Proof");
  line(
    paper,
    `${card.proof.steps
      .map(
        ({ title, expected, found, judged }) =>
          `${title}: ${found ?? "not done"}${judged && judged !== "right" ? ` (not as expected: ${expected})` : ""}`,
      )
      .join("; ")}.`,
  );
  if (card.notes.length > 0) heading(paper, "Notes");
  for (const note of card.notes) if (note.words) line(paper, `${note.time} ${note.words}`);
  for (const { words, jpeg } of photos) {
    paper.addPage();
    line(paper, words || "photo");
    paper.image(jpeg, margin, paper.y + 4, { fit: [width, 600] });
  }
}

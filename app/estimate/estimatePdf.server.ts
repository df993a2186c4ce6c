import { createRequire } from "node:module";
import type { Priced } from "@core/money/estimate";
import type { EstimateBody } from "@db/storedColumns";
import { priceText } from "../text/money";
import { PrintedPaper } from "../text/printedPaper.server";
import { quantityText } from "./quantity";

/** The heading of an estimate or a bill. */
export interface EstimateHead {
  readonly kind: "estimate" | "bill";
  readonly number: number;
  readonly job: number;
  readonly vehicle: string;
  readonly made: string;
  readonly approved: string | null;
}

// In WOFF format, which the PDF writer can read; the screen has the variable font.
const { resolve } = createRequire(import.meta.url);
const fontFile = (): string =>
  resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff");

const margin = 56;
const right = 595.28 - margin;
const foot = 760;

/** An estimate or bill as an A4 PDF, one page unless its lines need more, in the same font as the screen. */
export function estimatePdf(head: EstimateHead, body: EstimateBody, priced: Priced): Promise<Buffer> {
  const paper = new PrintedPaper({
    size: "A4",
    margin,
    info: { Title: `${titleOf(head)}, job ${head.job}` },
  });
  const pieces: Buffer[] = [];
  const made = new Promise<Buffer>((done, failed) => {
    paper.on("data", (piece: Buffer) => pieces.push(piece));
    paper.on("end", () => done(Buffer.concat(pieces)));
    paper.on("error", failed);
  });
  paper.font(fontFile());
  // An estimate names the offer it prices. A bill needs no title: its lines say what was done.
  const title = head.kind === "bill" ? titleOf(head) : `${titleOf(head)}: ${body.title}`;
  paper.fontSize(20).text(title, margin, margin);
  paper.fontSize(11).text(`Job ${head.job}, ${head.vehicle}. Made ${head.made}.`);
  if (head.approved) paper.text(`Approved ${head.approved}.`);
  paper.moveDown();
  for (const line of priced.lines) {
    const off = line.discountMinor === 0 ? "" : `, ${priceText(-line.discountMinor, body.currency)} off`;
    row(paper, line.title, priceText(line.netMinor, body.currency));
    paper
      .fontSize(9)
      .text(`${quantityText(line)} × ${priceText(line.eachMinor, body.currency)}${off}`, margin)
      .fontSize(11);
  }
  rule(paper);
  row(paper, "Net", priceText(priced.netMinor, body.currency));
  for (const { basisPoints, onMinor, taxMinor } of priced.taxes)
    if (taxMinor !== 0)
      row(
        paper,
        `Tax ${basisPoints / 100} % on ${priceText(onMinor, body.currency)}`,
        priceText(taxMinor, body.currency),
      );
  if (priced.coinMinor !== 0) row(paper, "Rounding", priceText(priced.coinMinor, body.currency));
  rule(paper);
  paper.fontSize(14);
  row(paper, "Total", priceText(priced.totalMinor, body.currency));
  paper
    .moveDown()
    .fontSize(9)
    .text("Local rules and the maker's procedure come before anything stated here.", margin);
  paper.end();
  return made;
}

const titleOf = ({ kind, number }: EstimateHead): string =>
  `${kind === "bill" ? "Bill" : "Estimate"} ${number}`;

function row(paper: PrintedPaper, title: string, amount: string): void {
  if (paper.y > foot) paper.addPage();
  const { y } = paper;
  paper.text(title, margin, y, { width: right - margin - 120 });
  const below = paper.y;
  paper.text(amount, right - 120, y, { width: 120, align: "right" });
  paper.y = Math.max(below, paper.y);
  paper.x = margin;
}

function rule(paper: PrintedPaper): void {
  paper.moveDown(0.3);
  paper.moveTo(margin, paper.y).lineTo(right, paper.y).lineWidth(0.7).stroke();
  paper.moveDown(0.3);
}

import PDFDocument from "pdfkit";
import { printedText } from "./printedText";

/** The pages of a PDF, which print only letters that their font has. */
export class PrintedPaper extends PDFDocument {
  override text(text: string, x?: number, y?: number, options?: PDFKit.Mixins.TextOptions): this;
  override text(text: string, options?: PDFKit.Mixins.TextOptions): this;
  override text(text: string, ...how: never[]): this {
    return super.text(printedText(text), ...how);
  }
}

declare module "svg-to-pdfkit" {
  interface Options {
    readonly assumePt?: boolean;
    readonly fontCallback?: (family: string, bold: boolean, italic: boolean) => string;
  }
  /** Paints an SVG onto a PDF page, as lines and text. */
  export default function SVGtoPDF(
    paper: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: Options,
  ): void;
}

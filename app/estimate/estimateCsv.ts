import type { Priced } from "@core/money/estimate";
import Papa from "papaparse";
import { amountText } from "../text/money";

/** A version as comma-separated text (RFC 4180), safe to open in a spreadsheet: its lines, then its totals. */
export function estimateCsv(
  { lines, netMinor, taxMinor, coinMinor, totalMinor }: Priced,
  currency: string,
): string {
  const amount = (minor: number): string => amountText(minor, currency).replace("−", "-");
  const total = (title: string, minor: number) => ({ kind: "total", title, net: amount(minor) });
  const rows = [
    ...lines.map((line) => ({
      kind: line.kind,
      title: line.title,
      quantity: String(line.quantityMilli / 1000),
      unit: line.unit,
      each: amount(line.eachMinor),
      discount: amount(line.discountMinor),
      net: amount(line.netMinor),
      taxPercent: String(line.taxBasisPoints / 100),
      tax: amount(line.taxMinor),
    })),
    total("net", netMinor),
    total("tax", taxMinor),
    total("rounding", coinMinor),
    total(`total ${currency}`, totalMinor),
  ];
  const columns = ["kind", "title", "quantity", "unit", "each", "discount", "net", "taxPercent", "tax"];
  // Negative money begins with a minus, which is not a formula.
  return `${Papa.unparse({ fields: columns, data: rows }, { escapeFormulae: /^[=+@\t\r]|^-(?![\d.]+$)/ })}\r\n`;
}

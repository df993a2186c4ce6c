import { type JobRecord, recordCells, recordColumns } from "@core/formats/recordFile";
import Papa from "papaparse";

/** Closed jobs as comma-separated text (RFC 4180), safe to open in a spreadsheet. */
export const recordsCsv = (records: readonly JobRecord[]): string =>
  `${Papa.unparse({ fields: [...recordColumns], data: records.map(recordCells) })}\r\n`;

import { stringify } from 'csv-stringify/sync';
import { asText } from './text';

/** R-CSV: RFC 4180: CRLF, quotes where needed, one header line. No cell is run as a formula. */
export const csv = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  stringify([[...heads], ...rows.map((row) => row.map(asText))], { record_delimiter: 'windows' });

import type { LeftOut } from '@ipsonomo/core/api';
import { CONNECTION_HEADS, FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, leftOut, type Format, type Material } from '../../format';
import { csv } from '../../parts/csv';
import { stateOf } from '../../parts/head';
import { onPaper } from '../../parts/on-paper';
import { Paper } from '../../parts/paper';
import { xlsx } from '../../parts/xlsx';
import { controllerRows } from './rows';

/** A device that has a controller, and no connection that could be typed into it. */
const withoutConnection = ({ chosen }: Material): readonly LeftOut[] =>
  chosen
    .filter(
      ({ device, at }) =>
        device.controllerId !== undefined &&
        device.connection === undefined &&
        device.interfaces[0] === at,
    )
    .map((one) => leftOut(one, 'no-connection'));

export const connectionsCsv: Format = {
  id: 'connections-csv',
  write: (material) => {
    const rows = controllerRows(material).flatMap(({ title, rows: own }) =>
      own.map(({ cells }) => [title, ...cells]),
    );
    const content = csv([FILE_WORDS.controller, ...CONNECTION_HEADS], rows);
    const name = fileName(material, 'connections', '.csv');
    return { files: [{ name, content }], left: withoutConnection(material) };
  },
};

export const connectionsXlsx: Format = {
  id: 'connections-xlsx',
  write: async (material) => {
    const sheets = controllerRows(material).map(({ title, rows }) => ({
      ...{ name: title, heads: CONNECTION_HEADS, rows: rows.map(({ cells }) => cells) },
    }));
    const none = [{ name: FILE_WORDS.connections, heads: CONNECTION_HEADS, rows: [] }];
    const content = await xlsx(sheets.length > 0 ? sheets : none, material.at);
    const name = fileName(material, 'connections', '.xlsx');
    return { files: [{ name, content }], left: withoutConnection(material) };
  },
};

/** On paper each connection is a paragraph: nineteen columns are read by nobody. */
export const connectionsPdf: Format = {
  id: 'connections-pdf',
  write: async (material) => {
    const title = `${material.job}: ${FILE_WORDS.connections}`;
    const paper = new Paper({ title, at: material.at, foot: stateOf(material).join(' ') });
    const letters = controllerRows(material).flatMap(({ title: controller, rows }) => {
      paper.newPage();
      paper.words(controller, 7, 'bold');
      return rows.flatMap(({ one, cells }) => onPaper(paper, one, () => paragraph(paper, cells)));
    });
    const content = await paper.end();
    const name = fileName(material, 'connections', '.pdf');
    return { files: [{ name, content }], left: [...withoutConnection(material), ...letters] };
  },
};

function paragraph(paper: Paper, cells: readonly string[]): void {
  const [device = '', ...others] = cells;
  paper.space();
  paper.need(20);
  paper.words(device, 4.2, 'bold');
  const filled = others.flatMap((value, at) =>
    value === '' ? [] : [`${CONNECTION_HEADS[at + 1]} ${value}`],
  );
  paper.words(filled.join(' · '), 3.4);
  paper.rule();
}

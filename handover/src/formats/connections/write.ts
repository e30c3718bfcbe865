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
      own.map((row) => [title, ...row]),
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
      ...{ name: title, heads: CONNECTION_HEADS, rows },
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
    for (const { title: controller, rows } of controllerRows(material)) {
      paper.newPage();
      paper.words(controller, 7, 'bold');
      for (const row of rows) {
        const said = CONNECTION_HEADS.map((head, at) => [head, row[at] ?? ''] as const);
        const [[, device = ''] = [], ...others] = said;
        paper.space();
        paper.need(20);
        paper.words(device, 4.2, 'bold');
        const filled = others.filter(([, value]) => value !== '');
        paper.words(filled.map(([head, value]) => `${head} ${value}`).join(' · '), 3.4);
        paper.rule();
      }
    }
    const [first] = material.chosen;
    const content = await paper.end();
    const name = fileName(material, 'connections', '.pdf');
    const letters = first ? onPaper(paper, first, () => undefined) : [];
    return { files: [{ name, content }], left: [...withoutConnection(material), ...letters] };
  },
};

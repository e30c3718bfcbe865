import { Resvg } from '@resvg/resvg-js';
import { STOCKS, type LeftOut, type Stock } from '@ipsonomo/core/api';
import { FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { fileName, leftOut, type Format, type Material, type WrittenFile } from '../../format';
import { moved } from '../../parts/drawing';
import { onPaper } from '../../parts/on-paper';
import { Paper } from '../../parts/paper';
import { svgOf } from '../../parts/svg';
import { labelDrawing, labelText } from './label';

const stockOf = ({ options }: Material): Stock => {
  const [first] = STOCKS;
  const stock = STOCKS.find(({ id }) => id === options.sheet) ?? first;
  if (!stock) throw new Error('there is no sheet of labels');
  return stock;
};

/** R-LABELS: labels on a sheet of stickers, from any of them on, or on a roll, a page each. */
export const labelsPdf: Format = {
  id: 'labels-pdf',
  write: async (material) => {
    const stock = stockOf(material);
    const { columns, rows, margin, pitch, size, page } = stock;
    const perPage = columns * rows;
    const title = `${material.job}: ${FILE_WORDS.labels}`;
    const paper = new Paper({ title, at: material.at, page });
    const first = (material.options.firstSticker - 1) % perPage;
    const left: LeftOut[] = [];
    material.chosen.forEach((one, index) => {
      const place = first + index;
      if (index === 0 || place % perPage === 0) paper.newPage();
      const [column, row] = [place % columns, Math.floor((place % perPage) / columns)];
      const drawing = labelDrawing(labelText(material, one), size, (words) =>
        left.push(leftOut(one, 'no-room', words)),
      );
      const [x, y] = [margin[0] + column * pitch[0], margin[1] + row * pitch[1]];
      const draw = () => drawing.ops.forEach((op) => paper.draw(moved(op, x, y)));
      left.push(...onPaper(paper, one, draw));
    });
    const content = await paper.end();
    return { files: [{ name: fileName(material, 'labels', '.pdf'), content }], left };
  },
};

const singles = (
  material: Material,
  ending: string,
  contentOf: (svg: string) => string | Uint8Array,
): { readonly files: readonly WrittenFile[]; readonly left: readonly LeftOut[] } => {
  const { size } = stockOf(material);
  const left: LeftOut[] = [];
  const files = material.chosen.map((one) => {
    const label = labelText(material, one);
    const drawing = labelDrawing(label, size, (words) => left.push(leftOut(one, 'no-room', words)));
    const said = [label.title, label.name, label.address, label.mask, label.mac];
    const content = contentOf(svgOf(drawing, said.filter(Boolean).join(', ')));
    return {
      name: `${label.name} ${label.address}${ending}`.replace(/[/\\:*?"<>|]+/g, '-'),
      content,
    };
  });
  return { files, left };
};

export const labelsSvg: Format = {
  id: 'labels-svg',
  write: (material) => singles(material, '.svg', (svg) => svg),
};

/** Dots in a millimetre: those of 300 to an inch, as label printers have them. */
const DOTS = 300 / 25.4;

export const labelsPng: Format = {
  id: 'labels-png',
  write: (material) =>
    singles(material, '.png', (svg) => {
      const width = Math.round(stockOf(material).size[0] * DOTS);
      const drawn = new Resvg(svg, { fitTo: { mode: 'width', value: width } }).render();
      return new Uint8Array(drawn.asPng());
    }),
};

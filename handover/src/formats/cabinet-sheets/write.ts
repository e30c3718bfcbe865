import { formatIpv4, formatMac } from '@ipsonomo/core/net';
import { findKind, swapOf, WAY_WORDS, type PlannedInterface } from '@ipsonomo/core/plan';
import { CARD_WORDS, FILE_WORDS, SHEET_HEADS } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format, type Material } from '../../format';
import { stateOf } from '../../parts/head';
import { hostNameOf } from '../../parts/host-names';
import { onPaper } from '../../parts/on-paper';
import { Paper } from '../../parts/paper';

const SHARES = [12, 26, 20, 18, 22, 20, 14];

/** By position as people count them: 2 before 10. */
const byPosition = new Intl.Collator('en', { numeric: true });

/** R-CABINET-SHEET: a page for each cabinet, all its devices by position. */
export const cabinetSheets: Format = {
  id: 'cabinet-sheets',
  write: async (material) => {
    const title = `${material.job}: ${FILE_WORDS.cabinetSheets}`;
    const paper = new Paper({ title, at: material.at, foot: stateOf(material).join(' ') });
    const cabinets = [...new Set(material.chosen.map(({ device }) => device.cabinet))].sort(
      byPosition.compare,
    );
    const left = cabinets.flatMap((cabinet) => {
      paper.newPage();
      paper.words(
        cabinet === '' ? CARD_WORDS.noCabinet : `${CARD_WORDS.cabinet} ${cabinet}`,
        8,
        'bold',
      );
      paper.words(material.job, 4);
      paper.space();
      paper.row(SHEET_HEADS, SHARES, 3, 'bold');
      paper.rule();
      return material.chosen
        .filter(({ device }) => device.cabinet === cabinet)
        .sort((one, other) => byPosition.compare(one.device.position, other.device.position))
        .flatMap((one) => onPaper(paper, one, () => line(paper, material, one)));
    });
    const content = await paper.end();
    return { files: [{ name: fileName(material, 'cabinet sheets', '.pdf'), content }], left };
  },
};

function line(paper: Paper, { plan }: Material, one: PlannedInterface): void {
  const { device, at } = one;
  const swap = swapOf(plan, device, at);
  const cells = [
    ...[device.position, device.title, hostNameOf(one), formatIpv4(at.address)],
    at.mac === undefined ? '' : formatMac(at.mac),
    [findKind(plan, device.kindId)?.name, WAY_WORDS[device.way]].filter(Boolean).join(', '),
    swap ? (swap.needsLaptop ? CARD_WORDS.withLaptop : CARD_WORDS.withoutLaptop) : '',
  ];
  paper.row(cells, SHARES);
  paper.rule();
}

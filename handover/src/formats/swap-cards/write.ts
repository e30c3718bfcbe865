import { formatIpv4, formatMac, maskOf } from '@ipsonomo/core/net';
import {
  findSubnet,
  gatewayOf,
  maskLengthOf,
  swapOf,
  type PlannedInterface,
  type SwapStep,
} from '@ipsonomo/core/plan';
import { CARD_WORDS, FILE_WORDS } from '@ipsonomo/language/hand-over-files';
import { swapStepWords } from '@ipsonomo/language/swap';
import { fileName, type Format, type Material } from '../../format';
import { drawSwitches } from '../../parts/draw-switches';
import { stateOf } from '../../parts/head';
import { hostNameOf } from '../../parts/host-names';
import { onPaper } from '../../parts/on-paper';
import { Paper } from '../../parts/paper';
import { labelText } from '../labels/label';

const CODE = 32;

/** R-SWAP-CARD: a page for each interface: what it is, and how it is replaced, with its switches drawn. */
export const swapCards: Format = {
  id: 'swap-cards',
  write: async (material) => {
    const title = `${material.job}: ${FILE_WORDS.swapCards}`;
    const paper = new Paper({ title, at: material.at, foot: stateOf(material).join(' ') });
    const left = material.chosen.flatMap((one) =>
      onPaper(paper, one, () => {
        paper.newPage();
        card(paper, material, one);
      }),
    );
    const content = await paper.end();
    return { files: [{ name: fileName(material, 'swap cards', '.pdf'), content }], left };
  },
};

function card(paper: Paper, material: Material, one: PlannedInterface): void {
  const { device, at } = one;
  const { plan } = material;
  const { code } = labelText(material, one);
  paper.draw({ kind: 'qr', x: 15 + paper.width - CODE, y: 15, side: CODE, text: code });
  const place = [device.area, device.cabinet, device.position].filter(Boolean).join(' · ');
  // Beside the code there is so much less room.
  const half = { right: CODE + 6 };
  paper.words(device.title, 7, 'bold', half);
  if (place !== '') paper.words(place, 4.2, 'sans', half);
  paper.words(formatIpv4(at.address), 9, 'mono', half);
  paper.y = Math.max(paper.y, 15 + CODE + 3);
  for (const line of factsOf(material, one)) paper.words(line, 3.8);
  const swap = swapOf(plan, device, at);
  if (!swap) return;
  paper.space();
  paper.words(swap.needsLaptop ? CARD_WORDS.laptop : CARD_WORDS.noLaptop, 5, 'bold');
  paper.space();
  swap.steps.forEach((step, index) => stepOn(paper, step, index + 1));
}

function factsOf({ plan }: Material, one: PlannedInterface): readonly string[] {
  const { at } = one;
  const subnet = findSubnet(plan, at.subnetId);
  const gateway = subnet && gatewayOf(at, subnet);
  return [
    `${CARD_WORDS.name}: ${hostNameOf(one)}`,
    ...(subnet ? [`${CARD_WORDS.mask}: ${formatIpv4(maskOf(maskLengthOf(at, subnet)))}`] : []),
    `${CARD_WORDS.gateway}: ${gateway === undefined ? CARD_WORDS.none : formatIpv4(gateway)}`,
    ...(at.mac === undefined ? [] : [`${CARD_WORDS.mac}: ${formatMac(at.mac)}`]),
  ];
}

function stepOn(paper: Paper, step: SwapStep, number: number): void {
  const [first, second] = swapStepWords(step);
  paper.words(`${number}. ${first}`, 4.4, 'bold');
  if (second) paper.words(second, 3.8, 'sans', { left: 7 });
  if (step.kind === 'switches' && step.setting.ok)
    paper.drawing(drawSwitches(step.face, step.setting.value.positions), 7);
  paper.space(1.5);
}

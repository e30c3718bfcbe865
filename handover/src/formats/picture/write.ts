import { cutInTheMiddle } from '@ipsonomo/core/names';
import { formatIpv4 } from '@ipsonomo/core/net';
import { linesOf, pictureOf, placed, type Box, type PlacedPicture } from '@ipsonomo/core/picture';
import { interfacesOf, type Stage } from '@ipsonomo/core/plan';
import { STAGE_WORDS } from '@ipsonomo/language';
import { FILE_WORDS, JOINER_WORDS, laneTitle } from '@ipsonomo/language/hand-over-files';
import { fileName, type Format, type Material } from '../../format';
import { stateOf } from '../../parts/head';
import { escaped } from '../../parts/svg';

// The site as it is connected, as SVG 1.1. Text is text, so that a device is found in it.

const INK = '#1c1a17';
const SECOND = '#57524a';
const GROUND = '#f2efe8';
const FONTS = "'Atkinson Hyperlegible Next', sans-serif";
/** Above the picture stands what it is of. */
const HEAD = 64;
/** So many letters have room in the box of a device. */
const LETTERS = 22;

/** R-PICTURE-FILE: every subnet with all of its devices, how far each is seen to be, and what joins the subnets. */
export const pictureSvg: Format = {
  id: 'picture-svg',
  write: (material) => {
    const content = drawn(placed(shown(material)), material);
    const name = fileName(material, 'picture', '.svg');
    return { files: [{ name, content }], left: [] };
  },
};

/** What is chosen, in its subnets; what joins them is drawn in any case. */
function shown({ plan, chosen }: Material) {
  const ids = new Set(chosen.map(({ at }) => at.id));
  const subnets = new Set(chosen.map(({ at }) => at.subnetId));
  const isWhole = ids.size === interfacesOf(plan).length;
  const picture = pictureOf(plan);
  const lanes = picture.lanes
    .filter(({ subnetId }) => isWhole || subnets.has(subnetId))
    .map((lane) => ({ ...lane, devices: lane.devices.filter((one) => ids.has(one.interfaceId)) }));
  const has = new Set(lanes.map(({ subnetId }) => subnetId));
  const joiners = picture.joiners.flatMap((joiner) => {
    const joined = joiner.lanes.filter((one) => has.has(one));
    return joined.length > 0 ? [{ ...joiner, lanes: joined }] : [];
  });
  return { lanes, joiners };
}

function drawn(picture: PlacedPicture, material: Material): string {
  const [width, height] = [Math.max(picture.width, 480), picture.height + HEAD];
  const title = `${material.job}: ${FILE_WORDS.picture}`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="${FONTS}" fill="${INK}">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    words(16, 26, 18, title, 'font-weight="700"'),
    words(16, 48, 13, stateOf(material).join(' '), `fill="${SECOND}"`),
    `<g transform="translate(0 ${HEAD})">`,
    ...linesOf(picture).map(
      ({ from, to }) =>
        `<path d="M${from.x} ${from.y}L${to.x} ${to.y}" stroke="${SECOND}" stroke-width="2"/>`,
    ),
    ...picture.lanes.flatMap((lane) => laneOf(lane, (id) => material.seen(id).stage)),
    ...picture.joiners.flatMap(({ joiner, box }) => [
      rect(box, `rx="26" fill="${GROUND}" stroke="${INK}" stroke-width="2"`),
      middle(box, 26, 14, cutInTheMiddle(joiner.title, LETTERS), 'font-weight="700"'),
      middle(box, 45, 12, JOINER_WORDS[joiner.kind], `fill="${SECOND}"`),
    ]),
    '</g>',
    '</svg>',
    '',
  ].join('\n');
}

function laneOf(
  { lane, box, devices }: PlacedPicture['lanes'][number],
  stageOf: (interfaceId: string) => Stage,
): readonly string[] {
  return [
    rect(box, `rx="6" fill="${GROUND}" stroke="${SECOND}"`),
    words(box.x + 12, box.y + 22, 15, laneTitle(lane), 'font-weight="700"'),
    ...devices.flatMap(({ device, box: chip }) => [
      rect(chip, `rx="4" fill="#fff" stroke="${SECOND}"`),
      words(
        chip.x + 8,
        chip.y + 18,
        13,
        cutInTheMiddle(device.title, LETTERS),
        'font-weight="600"',
      ),
      words(
        ...([chip.x + 8, chip.y + 35, 12] as const),
        `${formatIpv4(device.address)} · ${STAGE_WORDS[stageOf(device.interfaceId)]}`,
        `fill="${SECOND}"`,
      ),
    ]),
  ];
}

const rect = ({ x, y, width, height }: Box, look: string): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}" ${look}/>`;

const words = (x: number, y: number, size: number, said: string, look = ''): string =>
  `<text x="${x}" y="${y}" font-size="${size}" ${look}>${escaped(said)}</text>`;

const middle = (box: Box, down: number, size: number, said: string, look: string): string =>
  words(box.x + box.width / 2, box.y + down, size, said, `text-anchor="middle" ${look}`);

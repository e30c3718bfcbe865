import { formatIpv4, formatMac, maskOf } from '@ipsonomo/core/net';
import { findSubnet, maskLengthOf, type PlannedInterface } from '@ipsonomo/core/plan';
import { hostNameOf } from '../../parts/host-names';
import type { Material } from '../../format';
import { text, type Drawing, type Op } from '../../parts/drawing';
import { cutToFit, widthOf, type Face } from '../../parts/fonts';
import { QUIET, qrOf } from '../../parts/qr';

/** What a label says, in plain text too: for whoever reads its code without this installation. */
export interface LabelText {
  readonly title: string;
  readonly name: string;
  readonly address: string;
  readonly mask: string;
  /** Empty while none is bound. */
  readonly mac: string;
  readonly code: string;
}

export function labelText(material: Material, one: PlannedInterface): LabelText {
  const { device, at } = one;
  const subnet = findSubnet(material.plan, at.subnetId);
  const name = hostNameOf(one);
  const address = formatIpv4(at.address);
  const plain = `${name} ${address}`;
  return {
    ...{ title: device.title, name, address },
    mask: subnet ? formatIpv4(maskOf(maskLengthOf(at, subnet))) : '',
    mac: at.mac === undefined ? '' : formatMac(at.mac),
    // Behind the sign nothing is sent to a server: it is there to be read.
    code: material.linkTo ? `${material.linkTo(at.id)}#${encodeURI(plain)}` : plain,
  };
}

const EDGE = 1.5;
/** Smaller print is not read at a cabinet, in millimetres. */
const LEAST = 1.5;
/** A module of a code that a phone reads from a hand's distance, in millimetres (common practice, no source). */
const LEAST_MODULE = 0.25;

interface Line {
  readonly words: string;
  readonly face: Face;
  /** Its height beside the others'. */
  readonly weight: number;
}

/**
 * R-LABEL-DRAWN: name, address, mask and MAC on the left, the code on the right with its quiet zone, as large as the sticker
 * allows. Text that has no room is made smaller, and cut in its middle below that.
 * @param cut told of what was cut
 */
export function labelDrawing(
  label: LabelText,
  [width, height]: readonly [number, number],
  cut: (words: string) => void = () => undefined,
): Drawing {
  const { size } = qrOf(label.code);
  const most = Math.min(height - 2 * EDGE, width * 0.36);
  const side = (most * size) / (size + QUIET);
  const hasCode = side / size >= LEAST_MODULE;
  const room = width - 2 * EDGE - (hasCode ? most : 0);
  const lines = linesOfLabel(label, height);
  const sum = lines.reduce((all, { weight }) => all + weight, 0);
  const unit = (height - 2 * EDGE) / sum;
  let y = EDGE;
  const words = lines.map(({ words: line, face, weight }): Op => {
    const box = unit * weight;
    const wanted = Math.min(
      box * 0.8,
      (box * 0.8 * room) / Math.max(0.01, widthOf(line, face, box * 0.8)),
    );
    const letters = Math.max(LEAST, wanted);
    const fitting = cutToFit(line, face, letters, room);
    if (fitting !== line) cut(line);
    y += box;
    return text(EDGE, y - box * 0.22, letters, fitting, face);
  });
  const code: readonly Op[] = hasCode
    ? [
        {
          ...{ kind: 'qr', side, text: label.code },
          ...{ x: width - EDGE - side, y: (height - side) / 2 },
        },
      ]
    : [];
  return { width, height, ops: [...words, ...code] };
}

/** A small one has no line for the title. */
function linesOfLabel(
  { title, name, address, mask, mac }: LabelText,
  height: number,
): readonly Line[] {
  const all: readonly Line[] = [
    { words: name, face: 'bold', weight: 1.2 },
    { words: address, face: 'mono', weight: 1.6 },
    { words: mask, face: 'mono', weight: 0.9 },
    { words: mac, face: 'mono', weight: 0.9 },
    ...(height >= 20 ? [{ words: title, face: 'sans', weight: 0.9 } as const] : []),
  ];
  return all.filter(({ words }) => words !== '');
}

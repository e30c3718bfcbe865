import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STOCKS, type FormatId } from '@ipsonomo/core/api';
import { swapOf, type Device } from '@ipsonomo/core/plan';
import { swapStepWords } from '@ipsonomo/language/swap';
import type { MaterialWish, ProofRecord } from '../src';
import { labelDrawing, labelText } from '../src/formats/labels/label';
import { piecesOf, widthOf } from '../src/parts/fonts';
import { device, ip, mac, material, planWith, written } from './samples';
import { folder, inFile, run } from './run';
import { withProgram } from './with-program';
import { codesIn } from './zxing';

// What is printed: its text read back by pdftotext, its codes by a reader from the rendered page.

const TITLES = ['Förderband Süd', 'Łącznik č 2', 'Drum "A" & <B>', 'Pump × 3 – oil', 'Valve 5'];
const DEVICES: readonly Device[] = [
  ...TITLES.map((title, at) =>
    device(
      String(at),
      'switches',
      { address: ip(`172.22.40.${20 + at}`), mac: mac(`02:00:5e:00:53:1${at}`) },
      {
        title,
        kindId: 'wendle-station-20',
        cabinet: at < 3 ? 'A1' : 'A10',
        position: `${12 - at}`,
      },
    ),
  ),
  device('x', 'bootp', { address: ip('172.22.40.9') }, { cabinet: 'A2', position: '1' }),
];
const plan = planWith(DEVICES);
const linkTo = (id: string) => `http://192.168.1.7:4780/job/d1c0/call/${id}`;

async function pdf(id: FormatId, wish: Partial<MaterialWish> = {}) {
  const { files, left } = await written(id, plan, { linkTo, ...wish });
  return { bytes: files[0]?.content as Uint8Array, left };
}
const wordsOf = (bytes: Uint8Array) => run('pdftotext', '-layout', inFile(bytes, 'a.pdf'), '-').out;

function pictureOf(bytes: Uint8Array, dpi = 300): Uint8Array {
  const where = folder();
  run(
    'pdftoppm',
    '-png',
    '-r',
    String(dpi),
    '-f',
    '1',
    '-l',
    '1',
    '-singlefile',
    inFile(bytes, 'a.pdf'),
    join(where, 'page'),
  );
  return readFileSync(join(where, 'page.png'));
}

const withPoppler = withProgram('pdftotext', '-v');

withPoppler('R-LABELS: every label says its device; every code opens it and names it', async () => {
  const { bytes, left } = await pdf('labels-pdf');
  expect(left).toEqual([]);
  const text = wordsOf(bytes);
  for (const { title, interfaces } of DEVICES) {
    expect(text).toContain(title);
    expect(text).toContain(`172.22.40.${(interfaces[0]?.address ?? 0) & 255}`);
  }
  expect(text.match(/255\.255\.255\.0/g)?.length).toBe(DEVICES.length);
  const codes = await codesIn(pictureOf(bytes));
  expect([...codes].sort()).toEqual(
    DEVICES.map(({ id, name, interfaces }) => {
      const last = (interfaces[0]?.address ?? 0) & 255;
      return `${linkTo(`${id}-at`)}#${name}%20172.22.40.${last}`;
    }).sort(),
  );
});

withPoppler(
  'R-LABELS: the first sticker is the one that was said, and a full sheet goes on',
  async () => {
    const { bytes } = await pdf('labels-pdf', { options: { sheet: 'a4-3x7', firstSticker: 20 } });
    const pages = wordsOf(bytes).split('\f');
    expect(pages.length - 1).toBe(2);
    expect(pages[0]).toContain('172.22.40.20');
    expect(pages[0]).not.toContain('172.22.40.22');
    expect(pages[1]).toContain('172.22.40.22');
  },
);

withPoppler('a label without a code that a phone could read has none', async () => {
  const far = (id: string) => `http://${'hall.'.repeat(40)}example/${id}`;
  const options = { sheet: 'roll-36x18' };
  const { bytes } = await pdf('labels-pdf', { options, linkTo: far });
  expect(wordsOf(bytes).split('\f').length - 1).toBe(DEVICES.length);
  expect(await codesIn(pictureOf(bytes, 600))).toEqual([]);
});

test.each(STOCKS.map((one) => [one.id, one] as const))(
  'R-LABEL-DRAWN: %s: every sticker lies on its page, and what is drawn lies in its sticker',
  (_id, stock) => {
    const [width, height] = stock.size;
    const right = stock.margin[0] + (stock.columns - 1) * stock.pitch[0] + width;
    const bottom = stock.margin[1] + (stock.rows - 1) * stock.pitch[1] + height;
    expect(right).toBeLessThanOrEqual(stock.page[0] + 1e-9);
    expect(bottom).toBeLessThanOrEqual(stock.page[1] + 1e-9);
    expect(stock.pitch[0]).toBeGreaterThanOrEqual(width);
    expect(stock.pitch[1]).toBeGreaterThanOrEqual(height);
    const long = device(
      'z',
      'bootp',
      { address: ip('172.22.40.254') },
      {
        ...{ title: 'W'.repeat(120), name: `w${'0'.repeat(60)}9.hall-of-everything.example` },
      },
    );
    for (const one of [...DEVICES, long]) {
      const [at] = one.interfaces;
      if (!at) throw new Error('no interface');
      const all = material(planWith([one]), { linkTo });
      const cut: string[] = [];
      const { ops } = labelDrawing(labelText(all, { device: one, at }), stock.size, (words) =>
        cut.push(words),
      );
      for (const op of ops) {
        if (op.kind === 'text') {
          expect(op.x + widthOf(op.text, op.face, op.size)).toBeLessThanOrEqual(width + 0.01);
          expect(op.y).toBeLessThanOrEqual(height);
        }
        if (op.kind === 'qr') {
          expect(op.x + op.side).toBeLessThanOrEqual(width);
          expect(op.y + op.side).toBeLessThanOrEqual(height);
        }
      }
      // Nothing is lost in silence.
      const shown = ops.flatMap((op) => (op.kind === 'text' ? [op.text] : []));
      expect(shown.includes(one.name) || cut.includes(one.name)).toBe(true);
    }
  },
);

const RECORD: ProofRecord = {
  ...{ evidence: [], revisions: [], publicKey: '' },
  sign: () => new Uint8Array(),
};

test.each<FormatId>([
  ...(['labels-pdf', 'swap-cards', 'cabinet-sheets', 'connections-pdf', 'proof-pdf'] as const),
])('%s: letters that the fonts have not are told, and the rest is printed', async (id) => {
  const plc = device('plc', 'keypad', { address: ip('172.22.40.2') });
  const pump = device(...(['1', 'bootp', { address: ip('172.22.40.9') }] as const), {
    title: 'مضخة 🚰 1',
    controllerId: 'plc',
  });
  const { left } = await written(id, planWith([plc, pump]), { record: RECORD });
  expect(
    left.flatMap(({ title, reason, value }) => (reason === 'not-in-font' ? [[title, value]] : [])),
  ).toEqual([['مضخة 🚰 1', 'م ض خ ة 🚰']]);
});

test('what the fonts lack and people write all the same is written in their letters', () => {
  expect(
    piecesOf('a→b', 'sans')
      .map(({ text }) => text)
      .join(''),
  ).toBe('a->b');
});

test('R-LABELS: single labels as SVG and PNG: the code of each is read from its picture', async () => {
  const options = { sheet: 'roll-62x29' };
  const svgs = await written('labels-svg', plan, { linkTo, options });
  const pngs = await written('labels-png', plan, { linkTo, options });
  expect(svgs.files.map(({ name }) => name)[0]).toBe('fh-0 172.22.40.20.svg');
  expect(String(svgs.files[2]?.content)).toContain('<title>Drum "A" &amp; &lt;B>, fh-2,');
  for (const { content } of pngs.files) {
    const [code] = await codesIn(content as Uint8Array);
    expect(code).toContain('/call/');
  }
});

withPoppler(
  'R-SWAP-CARD: a page a device, its steps in their order, its switches by figures',
  async () => {
    const { bytes, left } = await pdf('swap-cards');
    expect(left).toEqual([]);
    const pages = wordsOf(bytes).split('\f').slice(0, -1);
    expect(pages.length).toBe(DEVICES.length);
    DEVICES.forEach((one, at) => {
      const page = (pages[at] ?? '').replace(/\s+/g, ' ');
      const [own] = one.interfaces;
      const steps = own ? (swapOf(plan, one, own)?.steps ?? []) : [];
      let before = 0;
      steps.forEach((step, number) => {
        const place = page.indexOf(`${number + 1}. ${swapStepWords(step)[0]}`);
        expect(place).toBeGreaterThan(before);
        before = place;
      });
    });
    // 20: the dials at 0, 2 and 0.
    expect((pages[0] ?? '').replace(/\s+/g, ' ')).toMatch(/×100 ×10 ×1 .*0 2 0/);
  },
);

withPoppler('R-CABINET-SHEET: a page a cabinet, positions as people count them', async () => {
  const { bytes } = await pdf('cabinet-sheets');
  const pages = wordsOf(bytes).split('\f').slice(0, -1);
  expect(pages.map((page) => /Cabinet (\S+)/.exec(page)?.[1])).toEqual(['A1', 'A2', 'A10']);
  const [first = ''] = pages;
  const places = ['172.22.40.22', '172.22.40.21', '172.22.40.20'].map((one) => first.indexOf(one));
  expect(places).toEqual([...places].sort((one, other) => one - other));
  expect(places[0]).toBeGreaterThan(0);
});

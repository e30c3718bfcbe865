import { Resvg } from '@resvg/resvg-js';
import { toPlan, toSubnet } from '@ipsonomo/core/plan';
import { must, parsePrefix } from '@ipsonomo/core/net';
import { device, HALL, ip, textOf } from './samples';

const YARD = toSubnet({
  ...{ id: 'yard', name: 'Yard <east> & "west"', prefix: must(parsePrefix('10.20.8.0/21')) },
  ...{ gateway: ip('10.20.8.1'), vlan: 8 },
});
const plan = toPlan({
  subnets: [HALL, YARD],
  devices: [
    device('one', 'bootp', { address: ip('172.22.40.9') }),
    device('two', 'bootp', { address: ip('172.22.40.10') }, { title: 'Press <&> "ö" 伝' }),
    device(
      'three',
      'web-page',
      { subnetId: 'yard', address: ip('10.20.8.9') },
      { title: 'Gantry of the east yard, drive number 17' },
    ),
  ],
});

/** What a drawing says, text by text; @throws where it is no XML that can be drawn */
async function said(wish: Parameters<typeof textOf>[2] = {}): Promise<readonly string[]> {
  const { text, name, left } = await textOf('picture-svg', plan, wish);
  expect([name, left]).toEqual(['Tern Cove picture revision 7.svg', []]);
  const { width, height } = new Resvg(text).render();
  expect(Math.min(width, height)).toBeGreaterThan(100);
  return [...text.matchAll(/<text [^>]*>([^<]*)<\/text>/g)].map(([, one = '']) =>
    one.replace(/&lt;/g, '<').replace(/&amp;/g, '&'),
  );
}

test('R-PICTURE-FILE: every subnet with its devices and their stages, what is odd in names as it is', async () => {
  const words = await said();
  for (const one of [
    ...['Tern Cove: the site as it is connected', 'Device one', '172.22.40.9 · planned'],
    ...['Press <&> "ö" 伝', 'Yard <east> & "west" · VLAN 8', '10.20.8.9 · planned'],
  ])
    expect(words).toContain(one);
});

test('a title that has no room is cut in its middle, its number stays', async () => {
  expect(await said()).toContain('Gantry of the east… 17');
});

test('of a part, that part and its subnets alone', async () => {
  const words = await said({ scope: { cabinets: [], subnets: ['yard'] } });
  expect(words.some((one) => one.includes('10.20.8.9'))).toBe(true);
  expect(words.some((one) => one.includes('172.22.40.'))).toBe(false);
});

test('a plan without anything in it is a picture of nothing', async () => {
  const { text } = await textOf('picture-svg', toPlan({ subnets: [], devices: [] }));
  expect(new Resvg(text).render().width).toBe(480);
});

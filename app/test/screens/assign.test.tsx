import { awaitedOf, reasonWords, strangersOf } from '../../src/screens/assign/awaited';
import { deviceInfo, heardView, jobView, planOfView } from '../world';

const drive = (id: string, at = {}, fields = {}) =>
  deviceInfo({ id, title: id, name: id, ...fields }, { id: `${id}-at`, ...at });

const ROUND = ['camera-at', 'named-at', 'given-at', 'planned-at'];

test('what is under way is next, then the order of the round', () => {
  const job = jobView([
    drive('planned'),
    drive('pinned', { stage: 'pinned', mac: '02:00:5e:00:53:01' }),
    drive('given', { stage: 'given', mac: '02:00:5e:00:53:02' }),
    drive('named', {}, { way: 'dhcp-mac', kindId: 'belloch-drive-d4' }),
    drive('camera', {}, { way: 'web-page', kindId: 'fennrick-camera-c1' }),
  ]);
  const heard = [
    heardView('02:00:5e:00:53:09', { protocol: 'DHCP', hostName: 'named' }),
    heardView('02:00:5e:00:53:02'),
  ];
  expect(
    awaitedOf(job, planOfView(job), heard, ROUND, 0).map(({ device, offers }) => [
      device.id,
      offers.length,
    ]),
  ).toEqual([
    ['given', 1],
    ['camera', 0],
    ['named', 1],
    ['planned', 0],
  ]);
});

test('a bound MAC is no stranger, and is offered to nobody else', () => {
  const job = jobView([drive('bound', { mac: '02:00:5e:00:53:02' }), drive('free')]);
  const heard = [heardView('02:00:5e:00:53:02'), heardView('02:00:5e:00:53:03', { lastAt: 1 })];
  expect(strangersOf(job, heard).map((one) => one.mac)).toEqual(['02:00:5e:00:53:03']);
  const free = awaitedOf(job, planOfView(job), heard, ROUND, 0).find(
    ({ device }) => device.id === 'free',
  );
  expect(free?.offers.map((offer) => offer.heard.mac)).toEqual(['02:00:5e:00:53:03']);
  expect(free && reasonWords(free.offers[0]?.reasons ?? [])).toBe('asks in its way');
});

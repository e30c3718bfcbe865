import { awaitedOf, reasonWords, strangersOf } from '../../src/screens/assign/awaited';
import { deviceInfo, heardView, jobView, planOfView } from '../world';

const drive = (id: string, at = {}, fields = {}) =>
  deviceInfo({ id, title: id, name: id, ...fields }, { id: `${id}-at`, ...at });

test('what has come furthest is next, then what is heard, then the order of the plan', () => {
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
    awaitedOf(job, planOfView(job), heard).map(({ device, offers }) => [device.id, offers.length]),
  ).toEqual([
    ['given', 1],
    ['named', 1],
    ['planned', 0],
    ['camera', 0],
  ]);
});

test('a bound MAC is no stranger, and is offered to nobody else', () => {
  const job = jobView([drive('bound', { mac: '02:00:5e:00:53:02' }), drive('free')]);
  const heard = [heardView('02:00:5e:00:53:02'), heardView('02:00:5e:00:53:03', { lastAt: 1 })];
  expect(strangersOf(job, heard).map((one) => one.mac)).toEqual(['02:00:5e:00:53:03']);
  const free = awaitedOf(job, planOfView(job), heard).find(({ device }) => device.id === 'free');
  expect(free?.offers.map((offer) => offer.heard.mac)).toEqual(['02:00:5e:00:53:03']);
  expect(free && reasonWords(free.offers[0]?.reasons ?? [])).toBe('asks in its way');
});

import { awaitedOf, HeardBook, reasonWords } from '../../src/features/calls/assign/awaited';
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
  const book = new HeardBook(job, planOfView(job), heard);
  expect(
    awaitedOf(job, ROUND, 0).map(({ device, at }) => [device.id, book.offersTo(at).length]),
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
  const book = new HeardBook(job, planOfView(job), heard);
  expect(book.strangers.map((one) => one.mac)).toEqual(['02:00:5e:00:53:03']);
  const free = awaitedOf(job, ROUND, 0).find(({ device }) => device.id === 'free');
  const offers = free ? book.offersTo(free.at) : [];
  expect(offers.map((offer) => offer.heard.mac)).toEqual(['02:00:5e:00:53:03']);
  expect(reasonWords(offers[0]?.reasons ?? [])).toBe('asks in its way');
});

import type { JobView } from '@ipsonomo/core/api';
import { toPlan } from '@ipsonomo/core/plan';
import { kindsWaiting, waitingFor } from '../../src/features/calls/desk/boxes';

const device = (title: string, kindId: string, way: string, mac: string | null) => ({
  ...{ id: title, title, kindId, way, interfaces: [{ id: `${title}-at`, mac }] },
});

const view = {
  devices: [
    device('drive 1', 'dunvarrick-drive-m', 'bootp', null),
    device('drive 2', 'dunvarrick-drive-m', 'bootp', '02:00:00:00:00:01'),
    device('drive 3', 'dunvarrick-drive-m', 'bootp', null),
    device('camera', 'fennrick-camera-c1', 'web-page', null),
    device('terminal', 'strathan-terminal-4', 'dhcp-name', null),
    device('gone', 'no-such-kind', 'keypad', null),
  ],
} as unknown as JobView;

const waiting = waitingFor(view, toPlan({}));

test('what waits for a sticker: no MAC yet, and a way that needs one', () => {
  expect(waiting.map((one) => one.device.title)).toEqual(['drive 1', 'drive 3', 'camera', 'gone']);
});

test('the kinds of it, the most first; one that nobody knows by its id', () => {
  expect(kindsWaiting(waiting).map(({ title, count }) => `${count} ${title}`)).toEqual([
    '2 Drum drive M',
    '1 Inspection camera C1',
    '1 no-such-kind',
  ]);
});

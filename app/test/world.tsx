import { ThemeProvider } from '@rneui/themed';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react-native';
import type { ReactElement } from 'react';
import type {
  DeviceInfo,
  EvidenceView,
  FieldView,
  HeardView,
  InterfaceView,
  JobView,
} from '@ipsonomo/core';
import { elementsTheme } from '../src/theme';

export const FIELD: FieldView = {
  source: 'practice',
  link: 'up',
  jobId: 'job',
  runId: 'run',
  voices: [],
  ownAddresses: [],
  answeringUntil: null,
  answers: 0,
  tasks: [],
  counters: { received: 0, sent: 0, malformed: 0, requests: 0, strangersDropped: 0 },
  notices: [],
  now: 1_000_000,
};

export const interfaceView = (fields: Partial<InterfaceView> = {}): InterfaceView => ({
  id: 'at',
  subnetId: 'hall',
  address: '172.22.40.85',
  mac: null,
  stage: 'planned',
  notches: (['planned', 'heard', 'given', 'pinned', 'proven'] as const).map((stage) => ({
    stage,
    state: stage === 'planned' ? 'reached' : 'open',
    by: null,
  })),
  issues: [],
  check: null,
  keep: null,
  trouble: null,
  ...fields,
});

export const deviceInfo = (
  fields: Partial<DeviceInfo> = {},
  at: Partial<InterfaceView> = {},
): DeviceInfo => ({
  id: 'drive',
  title: 'Drum filter drive 1',
  name: 'fh2-drive-1',
  kindId: 'dunvarrick-drive-m',
  way: 'bootp',
  area: 'Filter hall',
  cabinet: 'FH2',
  position: '2',
  interfaces: [interfaceView(at)],
  ...fields,
});

export const jobView = (devices: readonly DeviceInfo[]): JobView => ({
  id: 'job',
  name: 'Tern Cove hatchery',
  revision: 1,
  subnets: [
    {
      ...{ id: 'hall', name: 'Filter hall', network: '172.22.40.0/24', gateway: '172.22.40.1' },
      ...{ vlan: 40, purpose: '', bands: [] },
    },
  ],
  devices,
  left: { plan: 0, assign: devices.length, prove: 0, handOver: 0 },
});

export const heardView = (mac: string, fields: Partial<HeardView> = {}): HeardView => ({
  ...{ mac, protocol: 'BootP', message: 'BootP', hostName: null, vendorClass: null },
  ...{ clientId: null, address: null, count: 3, firstAt: 990_000, lastAt: 998_000, twins: null },
  ...fields,
});

/** What a screen asked the server for, in order. */
export interface Call {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** A screen over answers that are there already; what it posts is written down. */
export function show(
  element: ReactElement,
  answers: {
    readonly job?: JobView;
    readonly field?: FieldView;
    readonly heard?: readonly HeardView[];
    readonly evidence?: readonly EvidenceView[];
  } = {},
) {
  const calls: Call[] = [];
  const { job = jobView([]), field = FIELD, heard = [], evidence = [] } = answers;
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    if (method !== 'GET')
      calls.push({ method, path, body: JSON.parse(String(init.body ?? 'null')) as unknown });
    const answer = path.includes('/field') ? field : path.includes('/evidence') ? evidence : job;
    return Promise.resolve(new Response(JSON.stringify(answer), { status: 200 }));
  }) as typeof fetch;
  const client = new QueryClient({
    defaultOptions: {
      queries: { staleTime: Infinity, gcTime: Infinity },
      mutations: { gcTime: Infinity },
    },
  });
  client.setQueryData(['job', 'job'], job);
  client.setQueryData(['field'], field);
  client.setQueryData(['heard'], heard);
  for (const device of job.devices)
    for (const at of device.interfaces)
      client.setQueryData(['job', 'job', 'evidence', at.id], evidence);
  const screen = render(
    <QueryClientProvider client={client}>
      <ThemeProvider theme={elementsTheme('light')}>{element}</ThemeProvider>
    </QueryClientProvider>,
  );
  return { ...screen, calls };
}

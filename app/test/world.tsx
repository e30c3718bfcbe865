import { ThemeProvider } from '@rneui/themed';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { TextEncoder } from 'node:util';
import {
  NOTHING_SEEN,
  thingsOf,
  type DeviceInfo,
  type EvidenceView,
  type FieldView,
  type HeardView,
  type InterfaceView,
  type JobSummary,
  type JobView,
  type PlanView,
  type ProgressView,
  type RoundView,
  type StationView,
} from '@ipsonomo/core/api';
import { must, parseIpv4, parseMac, parsePrefix } from '@ipsonomo/core/net';
import { docOfPlan, toDevice, toInterface, toPlan, toSubnet, type Plan } from '@ipsonomo/core/plan';
import { NO_COST } from '@ipsonomo/core/round';
import { changeSettings, JobProvider } from '../src/data';
import { elementsTheme } from '../src/theme';

// Browsers have it; jsdom does not.
globalThis.TextEncoder ??= TextEncoder;

// What somebody half typed in one test is nobody's in the next.
afterEach(() => sessionStorage.clear());
// Who they are is asked for in a test of its own.
beforeEach(() => changeSettings({ person: 'Mara Quist' }));

export const FIELD: FieldView = {
  source: 'practice',
  link: 'up',
  jobId: 'job',
  runId: 'run',
  voices: [],
  socket: { neighbour: null, bridge: null, tags: [], subnets: [], outside: 0, heardAt: null },
  ownAddresses: [],
  proof: null,
  answeringUntil: null,
  answers: 0,
  drill: null,
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
  loan: null,
  ...NOTHING_SEEN,
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
  snags: [],
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

const ip = (text: string) => must(parseIpv4(text));

/** The plan behind what a screen is to show. */
export const planOfView = (job: JobView): Plan =>
  toPlan({
    subnets: job.subnets.map(({ id, name, network, gateway, bands }) =>
      toSubnet({
        ...{ id, name, prefix: must(parsePrefix(network)) },
        gateway: gateway === null ? undefined : ip(gateway),
        bands: bands.map(({ role, first, last }) => ({ role, first: ip(first), last: ip(last) })),
      }),
    ),
    devices: job.devices.map(({ interfaces, snags: _snags, ...device }) =>
      toDevice({
        ...device,
        interfaces: interfaces.map(({ id, subnetId, address, mac }) =>
          toInterface({
            ...{ id, deviceId: device.id, subnetId, address: ip(address) },
            mac: mac === null ? undefined : must(parseMac(mac)),
          }),
        ),
      }),
    ),
  });

const planView = (job: JobView): PlanView => ({
  ...{ id: job.id, name: job.name, revision: job.revision, lastNamed: 0 },
  things: thingsOf(docOfPlan(planOfView(job))),
});

const progressView = (job: JobView): ProgressView => ({
  seen: Object.fromEntries(
    job.devices.flatMap((one) => one.interfaces).map((at) => [at.id, at] as const),
  ),
  ...{ handedOver: 0, mark: 'x-1', isWhole: true },
});

export const heardView = (mac: string, fields: Partial<HeardView> = {}): HeardView => ({
  ...{ mac, protocol: 'BootP', message: 'BootP', hostName: null, vendorClass: null },
  ...{
    clientId: null,
    address: null,
    port: null,
    count: 3,
    firstAt: 990_000,
    lastAt: 998_000,
    twins: null,
    changesNumber: false,
  },
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
    readonly stations?: readonly StationView[];
    readonly evidence?: readonly EvidenceView[];
    readonly wires?: readonly FieldView[];
    /** What else is asked for, by a part of its path; a refusal where it is an `ErrorView`. */
    readonly also?: readonly (readonly [part: string, answer: unknown])[];
    readonly jobs?: readonly JobSummary[];
  } = {},
) {
  const calls: Call[] = [];
  const { job = jobView([]), field = FIELD, heard = [], evidence = [] } = answers;
  const { wires = [], jobs = [], also = [], stations = [] } = answers;
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    if (method !== 'GET')
      calls.push({ method, path, body: JSON.parse(String(init.body ?? 'null')) as unknown });
    const [, answer] = byPath.find(([part]) => path.includes(part)) ?? ['', job];
    const isRefused = typeof answer === 'object' && answer !== null && 'issues' in answer;
    // All that is read of an answer; this environment has no Response of its own.
    return Promise.resolve({
      ...{ ok: !isRefused, status: isRefused ? 409 : 200 },
      text: () => Promise.resolve(JSON.stringify(answer)),
      json: () => Promise.resolve(answer),
    });
  }) as unknown as typeof fetch;
  const round: RoundView = {
    order: job.devices.flatMap((one) => one.interfaces.map(({ id }) => id)),
    ...{ cost: NO_COST, mark: 'x-1' },
  };
  const byPath: readonly (readonly [string, unknown])[] = [
    ...also,
    ['/joined', { taken: [], clashes: [] }],
    ['/servers', { servers: [], databaseAwaySince: null }],
    ['/wires', wires],
    ['/wire', field],
    ['/evidence', evidence],
    ['/round', round],
    ['/progress', progressView(job)],
    ['/edits', { revision: job.revision, lastNamed: 0, edits: [] }],
    ['/plan', planView(job)],
    ['/jobs', jobs],
  ];
  const client = new QueryClient({
    defaultOptions: {
      queries: { staleTime: Infinity, gcTime: Infinity },
      mutations: { gcTime: Infinity },
    },
  });
  const { things: _things, ...head } = planView(job);
  client.setQueryData(['job', 'job', 'plan'], { ...head, doc: docOfPlan(planOfView(job)) });
  client.setQueryData(['job', 'job', 'progress'], progressView(job));
  client.setQueryData(['field', 'job'], field);
  client.setQueryData(['heard', 'job'], heard);
  client.setQueryData(['stations', 'job'], stations);
  for (const device of job.devices)
    for (const at of device.interfaces)
      client.setQueryData(['job', 'job', 'evidence', at.id], evidence);
  const screen = render(
    <QueryClientProvider client={client}>
      <ThemeProvider theme={elementsTheme('light')}>
        <JobProvider value="job">{element}</JobProvider>
      </ThemeProvider>
    </QueryClientProvider>,
  );
  /** What else is heard while the screen is there. */
  const hear = (now: readonly HeardView[]) => act(() => client.setQueryData(['heard', 'job'], now));
  return { ...screen, calls, hear };
}

import type {
  EvidenceView,
  EvidenceViewOf,
  FieldView,
  HeardView,
  InterfaceView,
  PlanView,
  StationView,
} from '@ipsonomo/core/api';
import { isOneOf, type EvidenceKind } from '@ipsonomo/core/plan';
import { api, until, type TestServer } from '../harness';
import { addDevices, jobView } from '../jobs';

/** A job on the tests' wire, as a technician would have planned it. */
export class Job {
  private constructor(
    readonly server: TestServer,
    readonly id: string,
    private readonly subnetId: string,
  ) {}

  static async begin(server: TestServer, name: string): Promise<Job> {
    const { id } = await api<{ id: string }>(server, 'POST', '/jobs', { name });
    const subnet = { name: 'Bench', network: '10.77.0.0/24', gateway: null, vlan: null };
    const added = await api<{ id: string }>(server, 'POST', `/jobs/${id}/subnets`, {
      ...subnet,
      purpose: 'machine network',
    });
    return new Job(server, id, added.id);
  }

  /** Plans a device and returns the id of its interface. */
  async plan(name: string, kindId: string, way: string, address: string): Promise<string> {
    const place = { area: '', cabinet: '', position: '' };
    const device = { title: name, name, kindId, way, ...place, subnetId: this.subnetId, address };
    const [at] = await addDevices(this.server, this.id, [device]);
    if (!at) throw new Error(`${name} was not added`);
    return at;
  }

  /** The path of its wire, or of something about it. */
  wire = (part = '') => `/jobs/${this.id}/wire${part}`;
  view = () => jobView(this.server, this.id);
  field = () => api<FieldView>(this.server, 'GET', this.wire());
  stations = () => api<StationView[]>(this.server, 'GET', this.wire('/stations'));
  search = () => api(this.server, 'POST', `/jobs/${this.id}/stations/search`, {});
  flash = (mac: string) =>
    api(this.server, 'POST', `/jobs/${this.id}/stations/${encodeURIComponent(mac)}/flash`, {});
  heard = () => api<HeardView[]>(this.server, 'GET', this.wire('/heard'));

  async listenOn(adapter: string): Promise<void> {
    await api(this.server, 'POST', this.wire(), { kind: 'live', adapter });
    await api(this.server, 'POST', this.wire('/listen'));
  }

  /** Answers, once nobody else was found to. */
  async answer(minutes = 10): Promise<void> {
    await this.tryToAnswer(minutes);
    const { answeringUntil, notices } = await this.field();
    if (answeringUntil === null) throw new Error(`not answering: ${JSON.stringify(notices[0])}`);
  }

  /** Lets Ipsonomo answer, and waits until it has looked for others. */
  async tryToAnswer(minutes = 10): Promise<void> {
    await api(this.server, 'POST', this.wire('/arm'), { minutes });
    await until('others were looked for', async () => {
      const { tasks } = await this.field();
      return !tasks.some((one) => one.kind === 'look-for-servers');
    });
  }

  /** Writes a DHCP server into the plan as one that is meant to be there. */
  expectServer = (address: string) => this.set('subnet', this.subnetId, 'dhcpServers', [address]);

  /** Writes the switch port of an interface into the plan. */
  plugInto = (at: string, circuit: string) =>
    this.set('interface', at, 'port', {
      ...{ circuit: Buffer.from(circuit).toString('hex'), remote: '' },
    });

  private async set(
    type: 'subnet' | 'interface',
    id: string,
    field: string,
    to: unknown,
  ): Promise<void> {
    const { things } = await api<PlanView>(this.server, 'GET', `/jobs/${this.id}/plan`);
    const from = things[type].find((one) => one['id'] === id)?.[field] ?? null;
    const edits = [{ op: 'set', type, id, field, from, to }];
    await api(this.server, 'POST', `/jobs/${this.id}/edits`, { edits, why: 'for the bench' });
  }

  bind = (at: string, mac: string) => this.act(at, 'bind', { mac, label: mac });

  act = <T = unknown>(at: string, act: string, body: unknown = {}) =>
    api<T>(this.server, 'POST', `/jobs/${this.id}/interfaces/${at}/${act}`, body);

  check = (...interfaceIds: readonly string[]) =>
    api(this.server, 'POST', `/jobs/${this.id}/check`, { interfaceIds });

  async at(id: string): Promise<InterfaceView> {
    const all = (await this.view()).devices.flatMap((one) => one.interfaces);
    const found = all.find((one) => one.id === id);
    if (!found) throw new Error(`no interface ${id}`);
    return found;
  }

  evidence = (at: string) =>
    api<EvidenceView[]>(this.server, 'GET', `/jobs/${this.id}/interfaces/${at}/evidence`);

  /** Waits for evidence of this kind; in vain, it tells what was seen instead. */
  async seen<K extends EvidenceKind>(
    at: string,
    kind: K,
    seconds = 60,
  ): Promise<EvidenceViewOf<K>> {
    const look = async (): Promise<EvidenceViewOf<K> | undefined> =>
      (await this.evidence(at)).find((one) => isOneOf([kind], one));
    try {
      return await until(`evidence "${kind}"`, look, seconds);
    } catch (error) {
      const all = (await this.evidence(at)).map((one) => [one.kind, one.facts]);
      throw new Error(`${String(error)}; seen: ${JSON.stringify(all)}`);
    }
  }

  reaches = (at: string, stage: string): Promise<boolean> =>
    until(`stage ${stage}`, async () => (await this.at(at)).stage === stage);
}

import { raw, type Transaction } from 'objection';
import type { Knex } from 'knex';
import {
  bandToView,
  formatIpv4,
  formatMac,
  formatPrefix,
  type Device,
  type Evidence,
  type Ipv4,
  type MacAddress,
  type Plan,
  type Subnet,
} from '@ipsonomo/core';
import {
  DeviceRow,
  EvidenceRow,
  HandOverRow,
  InterfaceRow,
  JobRow,
  RevisionRow,
  RunRow,
  SubnetRow,
} from './models';
import { Refusal, translateDatabaseError } from './refusal';
import { ipText, macText, toDevice, toEvidence, toSubnet } from './rows';

export interface JobRecord {
  readonly id: string;
  readonly name: string;
}

export interface NewEvidence extends Omit<Evidence, 'id'> {
  readonly jobId: string;
  readonly interfaceId: string;
  readonly runId: string | undefined;
  readonly sequence: number | undefined;
  readonly bytes: Buffer | undefined;
}

/** A change inside one transaction: everything in it happens or nothing does. */
export interface Change {
  readonly jobId: string;
  readonly person: string;
  readonly what: string;
  readonly details?: Record<string, unknown>;
}

const EVIDENCE_COLUMNS = [
  'id',
  'interface_id',
  'kind',
  'at',
  'mac',
  'address',
  'source',
  'person',
  'facts',
];

const byTime = (a: Evidence, b: Evidence): number => a.at - b.at || Number(a.id) - Number(b.id);

export type DeviceFields = Omit<Device, 'id' | 'interfaces'>;

/** The plan and the evidence in PostgreSQL. The only room that knows tables. */
export class Store {
  constructor(private readonly knex: Knex) {}

  async isAlive(): Promise<boolean> {
    return this.ask(async () => (await this.knex.raw('select 1')) !== undefined);
  }

  jobs(): Promise<readonly JobRecord[]> {
    return this.ask(() => JobRow.query(this.knex).select('id', 'name').orderBy('created_at'));
  }

  job(id: string): Promise<JobRecord> {
    return this.ask(async () => {
      const row = await JobRow.query(this.knex).findById(id);
      if (!row) throw Refusal.of('thing.unknown', 'job');
      return row;
    });
  }

  addJob(name: string): Promise<JobRecord> {
    return this.ask(() => JobRow.query(this.knex).insertAndFetch({ name }));
  }

  plan(jobId: string): Promise<Plan> {
    return this.ask(() => this.planIn(jobId, this.knex));
  }

  /**
   * Changes a plan: the current one is read under a lock, so two people cannot give one address
   * twice, and a revision is written with it.
   */
  change<T>(change: Change, work: (plan: Plan, write: PlanWriter) => Promise<T>): Promise<T> {
    return this.ask(() =>
      JobRow.transaction(this.knex, async (trx) => {
        const locked = await JobRow.query(trx).findById(change.jobId).forUpdate();
        if (!locked) throw Refusal.of('thing.unknown', 'job');
        const plan = await this.planIn(change.jobId, trx);
        const result = await work(plan, new PlanWriter(change.jobId, trx));
        await RevisionRow.query(trx).insert({
          job_id: change.jobId,
          number: raw(
            '(select coalesce(max(number), 0) + 1 from revision where job_id = ?)',
            change.jobId,
          ),
          person: change.person,
          what: change.what,
          details: change.details ?? {},
        });
        return result;
      }),
    );
  }

  /** The number of the last revision, and of the one last handed over. */
  revisions(jobId: string): Promise<{ readonly last: number; readonly handedOver: number }> {
    return this.ask(async () => {
      const last = await RevisionRow.query(this.knex)
        .where('job_id', jobId)
        .max('number as last')
        .first()
        .castTo<{ last: number | null } | undefined>();
      const handed = await HandOverRow.query(this.knex)
        .where('job_id', jobId)
        .max('revision as last')
        .first()
        .castTo<{ last: number | null } | undefined>();
      return { last: last?.last ?? 0, handedOver: handed?.last ?? 0 };
    });
  }

  addHandOver(jobId: string, person: string, what: string, revision: number): Promise<void> {
    return this.ask(async () => {
      await HandOverRow.query(this.knex).insert({ job_id: jobId, person, what, revision });
    });
  }

  addRun(jobId: string, source: string, person: string): Promise<RunRow> {
    return this.ask(() =>
      RunRow.query(this.knex).insertAndFetch({ job_id: jobId, source, person }),
    );
  }

  endRun(id: string): Promise<void> {
    return this.ask(async () => {
      await RunRow.query(this.knex)
        .findById(id)
        .whereNull('ended_at')
        .patch({ ended_at: new Date() });
    });
  }

  /** Runs that a crash left open end with the last thing they saw. */
  endLeftRuns(): Promise<void> {
    return this.ask(async () => {
      await this.knex.raw(`
        update run set ended_at = coalesce(
          (select max(at) from evidence where evidence.run_id = run.id), started_at)
        where ended_at is null`);
    });
  }

  runs(jobId: string): Promise<readonly RunRow[]> {
    return this.ask(() =>
      RunRow.query(this.knex).where('job_id', jobId).orderBy('started_at', 'desc').limit(50),
    );
  }

  /** Appends evidence; what a journal holds twice is written once. */
  append(evidence: readonly NewEvidence[]): Promise<void> {
    return this.ask(async () => {
      if (evidence.length === 0) return;
      const rows = evidence.map((one) => ({
        job_id: one.jobId,
        interface_id: one.interfaceId,
        run_id: one.runId ?? null,
        sequence: one.sequence ?? null,
        kind: one.kind,
        at: new Date(one.at),
        mac: macText(one.mac),
        address: ipText(one.address),
        source: one.source,
        person: one.person,
        facts: JSON.stringify(one.facts),
        bytes: one.bytes ?? null,
      }));
      await this.knex('evidence').insert(rows).onConflict(['run_id', 'sequence']).ignore();
    });
  }

  /**
   * Of every interface the last evidence of each kind, MAC and address, oldest first: all that a
   * stage can depend on, however often a device was asked.
   */
  latestEvidence(jobId: string): Promise<ReadonlyMap<string, readonly Evidence[]>> {
    return this.ask(async () => {
      const rows = await EvidenceRow.query(this.knex)
        .distinctOn('interface_id', 'kind', 'mac', 'address')
        .select(EVIDENCE_COLUMNS)
        .where('job_id', jobId)
        .orderBy([
          ...['interface_id', 'kind', 'mac', 'address'],
          { column: 'at', order: 'desc' },
          { column: 'id', order: 'desc' },
        ]);
      const byInterface = new Map<string, Evidence[]>();
      for (const row of rows) {
        const list = byInterface.get(row.interface_id) ?? [];
        list.push(toEvidence(row));
        byInterface.set(row.interface_id, list);
      }
      for (const list of byInterface.values()) list.sort(byTime);
      return byInterface;
    });
  }

  /** What was seen of one interface, newest first. */
  evidenceOf(jobId: string, interfaceId: string, most: number): Promise<readonly Evidence[]> {
    return this.ask(async () => {
      const rows = await EvidenceRow.query(this.knex)
        .select(EVIDENCE_COLUMNS)
        .where({ job_id: jobId, interface_id: interfaceId })
        .orderBy([
          { column: 'at', order: 'desc' },
          { column: 'id', order: 'desc' },
        ])
        .limit(most);
      return rows.map(toEvidence);
    });
  }

  private async planIn(jobId: string, knex: Knex | Transaction): Promise<Plan> {
    const subnets = await SubnetRow.query(knex).where('job_id', jobId).orderBy('network');
    const devices = await DeviceRow.query(knex)
      .where('job_id', jobId)
      .orderBy('ordinal')
      .withGraphFetched('interfaces');
    return { subnets: subnets.map(toSubnet), devices: devices.map(toDevice) };
  }

  private async ask<T>(work: () => PromiseLike<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      throw translateDatabaseError(error);
    }
  }
}

/** Writes to one job inside a transaction. */
export class PlanWriter {
  constructor(
    private readonly jobId: string,
    private readonly trx: Transaction,
  ) {}

  async addSubnet(subnet: Omit<Subnet, 'id'>): Promise<string> {
    const row = await SubnetRow.query(this.trx).insertAndFetch({
      job_id: this.jobId,
      name: subnet.name,
      network: formatPrefix(subnet.prefix),
      gateway: ipText(subnet.gateway),
      vlan: subnet.vlan ?? null,
      purpose: subnet.purpose,
      bands: subnet.bands.map(bandToView),
    });
    return row.id;
  }

  async addDevice(device: DeviceFields, subnetId: string, address: Ipv4): Promise<string> {
    const row = await DeviceRow.query(this.trx).insertAndFetch({
      job_id: this.jobId,
      title: device.title,
      name: device.name,
      kind_id: device.kindId,
      way: device.way,
      area: device.area,
      cabinet: device.cabinet,
      position: device.position,
    });
    await InterfaceRow.query(this.trx).insert({
      job_id: this.jobId,
      device_id: row.id,
      subnet_id: subnetId,
      address: formatIpv4(address),
    });
    return row.id;
  }

  async changeDevice(id: string, fields: Partial<DeviceFields>): Promise<void> {
    const { title, name, way, area, cabinet, position } = fields;
    const changed = Object.entries({ title, name, way, area, cabinet, position }).filter(
      ([, value]) => value !== undefined,
    );
    if (changed.length > 0)
      await DeviceRow.query(this.trx).findById(id).patch(Object.fromEntries(changed));
  }

  async removeDevice(id: string): Promise<void> {
    await DeviceRow.query(this.trx).deleteById(id);
  }

  async setAddress(interfaceId: string, address: Ipv4): Promise<void> {
    await InterfaceRow.query(this.trx)
      .findById(interfaceId)
      .patch({ address: formatIpv4(address) });
  }

  async setMac(interfaceId: string, mac: MacAddress | undefined): Promise<void> {
    await InterfaceRow.query(this.trx)
      .findById(interfaceId)
      .patch({ mac: mac === undefined ? null : formatMac(mac) });
  }
}

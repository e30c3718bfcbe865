import { Model, type JSONSchema } from 'objection';

// Rows as they stand in PostgreSQL: `cidr`, `inet` and `macaddr` arrive as text, times as Date.

export class JobRow extends Model {
  declare id: string;
  declare name: string;
  declare created_at: Date;
  static override readonly tableName = 'job';
}

export class SubnetRow extends Model {
  declare id: string;
  declare job_id: string;
  declare name: string;
  declare network: string;
  declare gateway: string | null;
  declare vlan: number | null;
  declare purpose: string;
  declare bands: { role: string; first: string; last: string }[];
  declare created_at: Date;
  static override readonly tableName = 'subnet';
  static override readonly jsonSchema: JSONSchema = {
    type: 'object',
    properties: { bands: { type: 'array' } },
  };
}

export class InterfaceRow extends Model {
  declare id: string;
  declare job_id: string;
  declare device_id: string;
  declare subnet_id: string;
  declare address: string;
  declare mac: string | null;
  static override readonly tableName = 'interface';
}

export class DeviceRow extends Model {
  declare id: string;
  declare job_id: string;
  declare title: string;
  declare name: string;
  declare kind_id: string;
  declare way: string;
  declare area: string;
  declare cabinet: string;
  declare position: string;
  declare ordinal: string;
  declare interfaces?: InterfaceRow[];
  static override readonly tableName = 'device';
  static override readonly relationMappings = {
    interfaces: {
      relation: Model.HasManyRelation,
      modelClass: InterfaceRow,
      join: { from: 'device.id', to: 'interface.device_id' },
    },
  };
}

export class RevisionRow extends Model {
  declare job_id: string;
  declare number: number;
  declare at: Date;
  declare person: string;
  declare what: string;
  declare details: Record<string, unknown>;
  static override readonly tableName = 'revision';
  static override readonly idColumn = ['job_id', 'number'];
  static override readonly jsonAttributes = ['details'];
}

export class RunRow extends Model {
  declare id: string;
  declare job_id: string;
  declare source: string;
  declare person: string;
  declare started_at: Date;
  declare ended_at: Date | null;
  static override readonly tableName = 'run';
}

export class EvidenceRow extends Model {
  declare id: string;
  declare job_id: string;
  declare interface_id: string;
  declare run_id: string | null;
  declare sequence: number | null;
  declare kind: string;
  declare at: Date;
  declare mac: string | null;
  declare address: string | null;
  declare source: string;
  declare person: string;
  declare facts: Record<string, string | number>;
  declare bytes: Buffer | null;
  static override readonly tableName = 'evidence';
  static override readonly jsonAttributes = ['facts'];
}

export class HandOverRow extends Model {
  declare id: string;
  declare job_id: string;
  declare at: Date;
  declare person: string;
  declare what: string;
  declare revision: number;
  static override readonly tableName = 'hand_over';
}

import {
  diffDocs,
  findShelfKind,
  type Json,
  type PlanDoc,
  type ThingDoc,
  type ThingType,
  type Way,
  WAY_WORDS,
} from '@ipsonomo/core/plan';

/** One thing or field in which two states of a plan differ, in words. */
export interface Difference {
  readonly key: string;
  /** What it is at: "Drum filter drive 2", "subnet Filter hall". */
  readonly thing: string;
  /** Empty where the whole thing came or went. */
  readonly field: string;
  readonly before: string;
  readonly after: string;
}

/** What a person would see to be different, things in the order of a plan file. */
export function differencesOf(before: PlanDoc, after: PlanDoc): readonly Difference[] {
  return diffDocs(before, after).flatMap((edit) => {
    // What was freed is kept by the plan itself and no change that anybody made.
    if (edit.type === 'freed') return [];
    const id = edit.op === 'set' ? edit.id : edit.thing.id;
    const thing = wordsOf(
      edit.type,
      after[edit.type].get(id) ?? before[edit.type].get(id),
      after,
      before,
    );
    const key = `${edit.type}|${id}|${edit.op === 'set' ? edit.field : ''}`;
    if (edit.op === 'add') return [{ key, thing, field: '', before: '–', after: 'added' }];
    if (edit.op === 'remove')
      return [{ key, thing, field: '', before: 'was there', after: 'removed' }];
    const value = (json: Json, doc: PlanDoc) => valueWords(edit.field, json, doc);
    return [
      {
        ...{ key, thing, field: FIELD_WORDS[edit.field] ?? edit.field },
        ...{ before: value(edit.from, before), after: value(edit.to, after) },
      },
    ];
  });
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  title: 'what people call it',
  name: 'name',
  stationName: 'station name',
  dhcpName: 'DHCP name',
  isNameTyped: 'name typed by hand',
  kindId: 'kind',
  controllerId: 'controller',
  subnetId: 'subnet',
  prefix: 'network',
  vlan: 'VLAN',
  mac: 'MAC',
  dnsSuffix: 'DNS suffix',
  dhcpServers: 'DHCP servers',
  intervalMillis: 'interval in ms',
  leastIntervalMillis: 'shortest interval in ms',
  inSize: 'size in',
  outSize: 'size out',
  unitBits: 'unit of the sizes, bits',
  headerBytes: 'of it header, in bytes',
  viewpoint: 'whose inputs are called in',
  inInstance: 'instance in',
  outInstance: 'instance out',
  configInstance: 'instance of the configuration',
  configBytes: 'configuration, in bytes',
  offers: 'connections offered',
  card: 'file of its memory card',
  file: 'name of the file',
  content: 'what stands in it',
  lineEnd: 'end of a line',
  where: 'where it goes',
  counting: 'registers are counted',
  tcpPort: 'TCP port',
  units: 'devices on the line',
  bandTemplate: 'bands of new subnets',
  namePattern: 'pattern of names',
  restores: 'what brings its parameters back',
  entered: 'as entered in its controller',
  passwordAt: 'where its password is kept',
};

/** What a thing is called where edits are read: "Drum filter drive 2", "subnet Filter hall". */
export const thingWords = (type: ThingType, id: string, doc: PlanDoc): string =>
  wordsOf(type, doc[type].get(id), doc, doc);

export const fieldWords = (field: string): string => FIELD_WORDS[field] ?? field;

function wordsOf(
  type: ThingType,
  thing: ThingDoc | undefined,
  after: PlanDoc,
  before: PlanDoc,
): string {
  if (!thing) return type;
  const deviceTitle = (id: Json | undefined): string => {
    const device = after.device.get(String(id)) ?? before.device.get(String(id));
    return device ? String(device['title']) : String(id);
  };
  switch (type) {
    case 'device':
      return String(thing['title']);
    case 'interface':
      return [deviceTitle(thing['deviceId']), thing['label']].filter(Boolean).join(', ');
    case 'subnet':
    case 'block':
    case 'realm':
    case 'kind':
      return `${type} ${String(thing['name'])}`;
    case 'acceptance':
      return `accepted: ${String(thing['reason'])}`;
    default:
      return type;
  }
}

const LONGEST = 160;

/** @example valueWords('subnetId', 's1', doc) // 'Filter hall' */
export function valueWords(field: string, json: Json | undefined, doc: PlanDoc): string {
  if (json === null || json === undefined || json === '') return '–';
  if (field === 'subnetId') return String(doc.subnet.get(String(json))?.['name'] ?? json);
  if (field === 'controllerId') return String(doc.device.get(String(json))?.['title'] ?? json);
  if (field === 'kindId')
    return String(
      doc.kind.get(String(json))?.['name'] ?? findShelfKind(String(json))?.name ?? json,
    );
  if (field === 'way') return WAY_WORDS[json as Way] ?? String(json);
  if (json === true) return 'yes';
  if (json === false) return 'no';
  const text = typeof json === 'object' ? JSON.stringify(json) : String(json);
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
}

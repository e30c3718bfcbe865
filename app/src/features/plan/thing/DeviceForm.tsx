import { useState } from 'react';
import { View } from 'react-native';
import {
  type Device,
  deviceShape,
  findKind,
  isObject,
  type JsonObject,
  type Plan,
  type Way,
  WAY_WORDS,
} from '@ipsonomo/core/plan';
import { Row, Words } from '../../../parts';
import { plural } from '../../words';
import { ConnectionForm } from './ConnectionForm';
import { ModulesForm } from './ModulesForm';
import { formOf } from './schema';
import { Fields, type Names } from './ValueForm';

interface Props {
  readonly plan: Plan;
  readonly names: Names;
  readonly value: JsonObject;
  readonly onChange: (value: JsonObject) => void;
}

interface Part {
  readonly title: string;
  readonly fields: readonly (keyof Device)[];
  readonly summary: (value: JsonObject) => string;
}

const texts = (value: JsonObject, ...fields: readonly string[]): string =>
  fields.flatMap((field) => (value[field] ? [String(value[field])] : [])).join(' · ') || '–';
const count = (value: JsonObject, field: string): number =>
  Array.isArray(value[field]) ? (value[field] as readonly unknown[]).length : 0;
const counted = (field: string, one: string) => (value: JsonObject) =>
  count(value, field) === 0 ? 'none' : plural(count(value, field), one);

/** The parts of a device, in the order in which it is planned. */
const PARTS: readonly Part[] = [
  {
    title: 'What and where',
    fields: ['title', 'area', 'cabinet', 'position', 'note'],
    summary: (value) => texts(value, 'title', 'area', 'cabinet', 'position'),
  },
  {
    title: 'Kind, way, controller',
    fields: ['kindId', 'way', 'protocol', 'controllerId'],
    summary: (value) =>
      [WAY_WORDS[value['way'] as Way], value['protocol']].filter(Boolean).join(' · '),
  },
  {
    title: 'Names',
    fields: ['name', 'stationName', 'dhcpName', 'variable'],
    summary: (value) => texts(value, 'name', 'stationName', 'dhcpName', 'variable'),
  },
  { title: 'Modules', fields: ['modules'], summary: counted('modules', 'module') },
  {
    title: 'Connection',
    fields: ['connection'],
    summary: ({ connection }) => (isObject(connection) ? String(connection['protocol']) : 'none'),
  },
  {
    title: 'When it is swapped',
    fields: ['restores', 'passwordAt'],
    summary: (value) => texts(value, 'restores', 'passwordAt'),
  },
  { title: 'Serial lines', fields: ['lines'], summary: counted('lines', 'line') },
  {
    title: 'Routes and translations',
    fields: ['routes', 'translations'],
    summary: (value) => {
      const all = count(value, 'routes') + count(value, 'translations');
      return all === 0 ? 'none' : String(all);
    },
  },
  {
    title: 'Values that name another device',
    fields: ['references'],
    summary: counted('references', 'value'),
  },
];

const FORM = formOf(deviceShape.schema);
const SCHEMAS = new Map(FORM.kind === 'object' ? FORM.fields : []);

/** A device in its parts, each opened by a touch; the closed ones say what is in them. */
export function DeviceForm({ plan, names, value, onChange }: Props) {
  const [open, setOpen] = useState<string>();
  return (
    <View>
      {PARTS.map(({ title, fields, summary }) => (
        <View key={title}>
          <Row
            label={title}
            selected={open === title}
            onPress={() => setOpen(open === title ? undefined : title)}
          >
            <Words size="strong">{title}</Words>
            <Words size="second" tone="second" lines={1}>
              {summary(value)}
            </Words>
          </Row>
          {open === title ? (
            <View style={{ paddingVertical: 12 }}>
              <Inside {...{ plan, names, value, onChange, fields }} />
            </View>
          ) : null}
        </View>
      ))}
    </View>
  );
}

function Inside({ plan, names, value, onChange, fields }: Props & Pick<Part, 'fields'>) {
  const kind = findKind(plan, String(value['kindId']));
  if (fields[0] === 'modules') return <ModulesForm {...{ kind, names, value, onChange }} />;
  if (fields[0] === 'connection') return <ConnectionForm {...{ kind, value, onChange }} />;
  return (
    <Fields
      {...{ names, value }}
      fields={fields.flatMap((field) => {
        const schema = SCHEMAS.get(field);
        return schema ? [[field, schema] as const] : [];
      })}
      onChange={(next) => isObject(next) && onChange(next)}
    />
  );
}

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
} from '@ipsonomo/core/plan';
import { WAY_WORDS } from '@ipsonomo/language';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { Row, Words } from '../../../parts';
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
const counted =
  (field: string, words: (facts: { readonly count: number }) => string) => (value: JsonObject) =>
    words({ count: count(value, field) });

/** The parts of a device, in the order in which it is planned. */
const PARTS: readonly Part[] = [
  {
    title: THING_WORDS.whatAndWhere,
    fields: ['title', 'area', 'cabinet', 'position', 'note'],
    summary: (value) => texts(value, 'title', 'area', 'cabinet', 'position'),
  },
  {
    title: THING_WORDS.kindWayController,
    fields: ['kindId', 'way', 'protocol', 'controllerId'],
    summary: (value) =>
      [WAY_WORDS[value['way'] as Way], value['protocol']].filter(Boolean).join(' · '),
  },
  {
    title: COMMON_WORDS.names,
    fields: ['name', 'stationName', 'dhcpName', 'variable'],
    summary: (value) => texts(value, 'name', 'stationName', 'dhcpName', 'variable'),
  },
  {
    title: THING_WORDS.modules,
    fields: ['modules'],
    summary: counted('modules', THING_WORDS.moduleCount),
  },
  {
    title: THING_WORDS.connection,
    fields: ['connection'],
    summary: ({ connection }) =>
      isObject(connection) ? String(connection['protocol']) : THING_WORDS.none,
  },
  {
    title: THING_WORDS.whenItIsSwapped,
    fields: ['restores', 'passwordAt'],
    summary: (value) => texts(value, 'restores', 'passwordAt'),
  },
  {
    title: THING_WORDS.serialLines,
    fields: ['lines'],
    summary: counted('lines', THING_WORDS.lineCount),
  },
  {
    title: THING_WORDS.routesAndTranslations,
    fields: ['routes', 'translations'],
    summary: (value) => {
      const all = count(value, 'routes') + count(value, 'translations');
      return all === 0 ? THING_WORDS.none : String(all);
    },
  },
  {
    title: THING_WORDS.valuesThatNameAnotherDevice,
    fields: ['references'],
    summary: counted('references', THING_WORDS.valueCount),
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

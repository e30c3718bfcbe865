import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { snagSentence } from '@ipsonomo/language';
import {
  deviceShape,
  endWithBytes,
  isObject,
  offeredBytes,
  PROTOCOLS,
  type ConnectionEnd,
  type Json,
  type JsonObject,
  type Kind,
} from '@ipsonomo/core/plan';
import { connectionSnags, snagKey } from '@ipsonomo/core/snags';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { Field, Notice, Pick, Words } from '../../../parts';
import { useColours } from '../../../theme';
import { emptyOf, formOf } from './schema';
import { deviceOfTyped } from './typed-device';
import { labelOf } from './ValueForm';

interface Props {
  readonly kind: Kind | undefined;
  readonly value: JsonObject;
  readonly onChange: (value: JsonObject) => void;
}

const SCHEMA = formOf(deviceShape.fields['connection']?.schema ?? {});
const CONNECTION = SCHEMA.kind === 'maybe' ? SCHEMA.of : {};
const END = formOf((CONNECTION['properties'] as JsonObject | undefined)?.['device'] as JsonObject);
const ENDS = ['device', 'controller'] as const;

/** A connection as its two ends have it, side by side, with what speaks against it while one types. */
export function ConnectionForm({ kind, value, onChange }: Props) {
  const { connection = null } = value;
  const set = (next: Json) => onChange({ ...value, connection: next });
  if (!isObject(connection))
    return (
      <Button type="outline" title={THING_WORDS.planAConnection} onPress={() => set(first(kind))} />
    );
  const device = deviceOfTyped(value);
  const snags = device ? connectionSnags({ device, kind }) : [];
  const setEnd = (end: (typeof ENDS)[number], field: string, json: Json) =>
    set({ ...connection, [end]: { ...(connection[end] as JsonObject), [field]: json } });
  const takeOver = () => {
    if (!device?.connection || !kind) return;
    const bytes = offeredBytes(device, kind);
    const sized = (end: (typeof ENDS)[number], stated: ConnectionEnd): JsonObject => {
      const { inSize, outSize } = endWithBytes(stated, bytes);
      return { ...(connection[end] as JsonObject), inSize: inSize ?? 0, outSize: outSize ?? 0 };
    };
    const { device: own, controller } = device.connection;
    set({
      ...connection,
      device: sized('device', own),
      controller: sized('controller', controller),
    });
  };
  const hasModules = kind && kind.modules.length > 0 && (device?.modules.length ?? 0) > 0;
  return (
    <View style={{ gap: 12 }}>
      <Pick
        label={THING_WORDS.protocol}
        options={PROTOCOLS.map((one) => ({ value: one as string, title: one }))}
        value={String(connection['protocol'])}
        onChange={(protocol) => set({ ...connection, protocol })}
      />
      <Pair>
        <Words size="strong">{COMMON_WORDS.atTheDevice}</Words>
        <Words size="strong">{THING_WORDS.inTheControllersProject}</Words>
      </Pair>
      {(END.kind === 'object' ? END.fields : []).map(([field, schema]) => (
        <EndField key={field} {...{ field, schema, connection }} onChange={setEnd} />
      ))}
      {hasModules ? (
        <Button type="outline" title={THING_WORDS.takeTheSizesFromTheModules} onPress={takeOver} />
      ) : null}
      {snags.map((snag) => (
        <Notice
          key={`${snagKey(snag)}|${snagSentence(snag)}`}
          tone={snag.severity === 'wrong' ? 'brick' : 'ochre'}
        >
          {snagSentence(snag)}
        </Notice>
      ))}
      <Button type="clear" title={THING_WORDS.planNoConnection} onPress={() => set(null)} />
    </View>
  );
}

/** Both ends empty, in the first protocol that the kind speaks. */
function first(kind: Kind | undefined): Json {
  const empty = emptyOf(CONNECTION);
  const protocol = kind?.roles[0]?.protocol ?? PROTOCOLS[0];
  return isObject(empty) ? { ...empty, protocol } : empty;
}

interface EndFieldProps {
  readonly field: string;
  readonly schema: JsonObject;
  readonly connection: JsonObject;
  readonly onChange: (end: (typeof ENDS)[number], field: string, json: Json) => void;
}

/** One field of both ends beside each other; the line between them is heavy where they differ. */
function EndField({ field, schema, connection, onChange }: EndFieldProps) {
  const [own, other] = ENDS.map((end) => (connection[end] as JsonObject)[field] ?? null);
  return (
    <Pair isOther={own !== other && own !== null && other !== null}>
      {ENDS.map((end) => (
        <EndValue
          key={end}
          {...{ field, schema }}
          value={(connection[end] as JsonObject)[field] ?? null}
          onChange={(json) => onChange(end, field, json)}
        />
      ))}
    </Pair>
  );
}

interface EndValueProps {
  readonly field: string;
  readonly schema: JsonObject;
  readonly value: Json;
  readonly onChange: (json: Json) => void;
}

/** A number may be left out; then it is not compared. */
function EndValue({ field, schema, value, onChange }: EndValueProps) {
  const form = formOf(schema);
  const label = labelOf(field);
  if (form.kind === 'choice')
    return (
      <Pick
        label={label}
        options={form.options.map((one) => ({ value: one, title: one }))}
        value={String(value)}
        onChange={onChange}
      />
    );
  if (form.kind === 'text')
    return <Field label={label} value={String(value ?? '')} onChange={onChange} />;
  const isOptional = form.kind === 'maybe';
  const take = (text: string) => {
    const trimmed = text.trim();
    if (trimmed === '' && isOptional) onChange(null);
    else onChange(/^\d+$/.test(trimmed) ? Number(trimmed) : text);
  };
  return <Field label={label} value={String(value ?? '')} onChange={take} numeric />;
}

function Pair({
  children,
  isOther = false,
}: {
  readonly children: readonly React.ReactNode[];
  readonly isOther?: boolean;
}) {
  const colours = useColours();
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      {children.map((child, index) => (
        <View
          key={index}
          style={{
            flex: 1,
            paddingLeft: 8,
            borderLeftWidth: index === 0 ? 0 : 4,
            borderLeftColor: isOther ? colours.ochre : 'transparent',
          }}
        >
          {child}
        </View>
      ))}
    </View>
  );
}

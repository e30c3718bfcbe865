import { Button } from '@rneui/themed';
import { View } from 'react-native';
import { snagSentence } from '@ipsonomo/language';
import {
  connectionOffered,
  deviceShape,
  docOf,
  endOffered,
  endWithBytes,
  isFieldOf,
  isObject,
  offeredBytes,
  offersOf,
  PROTOCOLS,
  toDevice,
  type ConnectionEnd,
  type ConnectionOffer,
  type Json,
  type JsonObject,
  type Kind,
} from '@ipsonomo/core/plan';
import { connectionSnags, snagKey } from '@ipsonomo/core/snags';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { CONNECTION_WORDS } from '@ipsonomo/language/screens/connection';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { Field, Notice, Pick, Words } from '../../../parts';
import { useColours } from '../../../theme';
import { emptyOf, formOf } from './schema';
import { deviceOfTyped } from './typed-device';
import { endChoices, endLabel } from './end-words';

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
      <View style={{ gap: 8 }}>
        {(kind?.offers ?? []).map((offer) => (
          <Button
            key={offer.title}
            type="outline"
            title={CONNECTION_WORDS.planAsOffered({ title: offer.title })}
            onPress={() => set(offered(offer))}
          />
        ))}
        <Button
          type="outline"
          title={THING_WORDS.planAConnection}
          onPress={() => set(first(kind))}
        />
      </View>
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
  const takeOffer = (offer: ConnectionOffer) => {
    if (!device?.connection) return;
    const end = endOffered(device.connection.device, offer);
    const next = toDevice({ ...device, connection: { ...device.connection, device: end } });
    set(docOf('device', next)['connection'] ?? null);
  };
  const protocol = String(connection['protocol']);
  const hasModules = kind && kind.modules.length > 0 && (device?.modules.length ?? 0) > 0;
  return (
    <View style={{ gap: 12 }}>
      <Pick
        label={THING_WORDS.protocol}
        options={PROTOCOLS.map((one) => ({ value: one as string, title: one }))}
        value={protocol}
        onChange={(next) => set({ ...connection, protocol: next })}
      />
      {offersOf(kind, protocol).map((offer) => (
        <Button
          key={offer.title}
          type="outline"
          title={CONNECTION_WORDS.asOffered({ title: offer.title })}
          onPress={() => takeOffer(offer)}
        />
      ))}
      <Heads />
      {(END.kind === 'object' ? END.fields : [])
        .filter(([field]) => isFieldOf(protocol, field) || isSaid(connection, field))
        .map(([field, schema]) => (
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

/** A connection as it is offered, as the plan writes it. */
const offered = (offer: ConnectionOffer): Json =>
  docOf('device', toDevice({ ...NOBODY, connection: connectionOffered(offer) }))['connection'] ??
  null;

const NOBODY = {
  id: 'nobody',
  title: 'nobody',
  name: 'nobody',
  kindId: 'nobody',
  way: 'bootp',
} as const;

/** What stands in a field that its protocol does not have is not hidden away. */
const isSaid = (connection: JsonObject, field: string): boolean =>
  ENDS.some((end) => {
    const value = (connection[end] as JsonObject)[field] ?? null;
    return value !== null && !USUAL.includes(value);
  });

/** What stands in every end of which nothing is said. */
const USUAL: readonly Json[] = ['', 0, '8', 'controller', 'from-0'];

/** Which column is the device and which the project stays in sight while one scrolls. */
function Heads() {
  const colours = useColours();
  return (
    <View style={{ position: STICKY, top: 0, zIndex: 1, backgroundColor: colours.ground }}>
      <Pair>
        <Words size="strong">{COMMON_WORDS.atTheDevice}</Words>
        <Words size="strong">{THING_WORDS.inTheControllersProject}</Words>
      </Pair>
    </View>
  );
}

/** React Native's types do not know it; browsers do. */
const STICKY = 'sticky' as 'relative';

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
          unitBits={String((connection[end] as JsonObject)['unitBits'])}
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
  /** What the sizes of this end are counted in. */
  readonly unitBits: string;
  readonly onChange: (json: Json) => void;
}

/** A number may be left out; then it is not compared. */
function EndValue({ field, schema, value, unitBits, onChange }: EndValueProps) {
  const form = formOf(schema);
  const label = endLabel(field, unitBits);
  if (form.kind === 'choice')
    return (
      <Pick
        label={label}
        options={endChoices(form.options)}
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

import { Button } from '@rneui/themed';
import { useState } from 'react';
import { View } from 'react-native';
import { fieldWords } from '@ipsonomo/language';
import { isObject, type Json, type JsonObject } from '@ipsonomo/core/plan';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { Card, Field, LongField, Pick, Toggle, Words, type PickOption } from '../../../parts';
import { emptyOf, formOf } from './schema';

/** What an id can be, by the name of its field. */
export type Names = Readonly<Record<string, readonly PickOption<string>[]>>;

interface Props {
  readonly name: string;
  readonly schema: JsonObject;
  readonly value: Json;
  readonly names: Names;
  readonly onChange: (value: Json) => void;
  /** An entry of a list, which has the heading already. */
  readonly isEntry?: boolean;
}

/** "leastIntervalMillis" as a person reads it. */
export const labelOf = (name: string): string => {
  const known = fieldWords(name);
  return known === name ? name.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`) : known;
};

/** A text that may be as long as this has several lines. */
const SEVERAL_LINES = 1000;

/** A form for any value that a plan can hold, made from its schema. */
export function ValueForm(props: Props) {
  const { name, schema, value, names, onChange } = props;
  const form = formOf(schema);
  const label = labelOf(name);
  const ids = names[name];
  if (ids)
    return <Pick label={label} options={ids} value={String(value ?? '')} onChange={onChange} />;
  switch (form.kind) {
    case 'text':
      if (form.most >= SEVERAL_LINES)
        return <LongField label={label} value={String(value ?? '')} onChange={onChange} />;
      return <Field label={label} value={String(value ?? '')} onChange={onChange} />;
    case 'number':
      return <NumberField label={label} value={value} onChange={onChange} />;
    case 'flag':
      return (
        <Toggle title={label} isOn={value === true} onPress={() => onChange(value !== true)} />
      );
    case 'choice':
      return (
        <Pick
          label={label}
          options={form.options.map((one) => ({ value: one, title: one }))}
          value={String(value)}
          onChange={onChange}
        />
      );
    case 'maybe':
      return <Maybe {...props} label={label} of={form.of} />;
    case 'list':
      return <ListForm {...props} label={label} of={form.of} />;
    case 'object':
      return (
        <View style={{ gap: 8 }}>
          {props.isEntry ? null : <Words size="strong">{label}</Words>}
          <Fields {...{ names, value, onChange }} fields={form.fields} />
        </View>
      );
    case 'variant':
      return <Variant {...props} variants={form.variants} />;
  }
}

/** The text is kept as it is typed; what is no number goes out as a text, and is refused by its shape. */
function NumberField({ label, value, onChange }: NumberProps) {
  const [text, setText] = useState(String(value ?? ''));
  const take = (typed: string) => {
    setText(typed);
    onChange(/^\d+$/.test(typed.trim()) ? Number(typed) : typed);
  };
  return <Field label={label} value={text} onChange={take} numeric />;
}

interface NumberProps {
  readonly label: string;
  readonly value: Json;
  readonly onChange: (value: Json) => void;
}

function Maybe({
  of,
  label,
  value,
  onChange,
  ...rest
}: Props & { readonly of: JsonObject; readonly label: string }) {
  if (value === null)
    return (
      <Button
        type="clear"
        title={THING_WORDS.say({ label })}
        onPress={() => onChange(emptyOf(of))}
      />
    );
  return (
    <View style={{ gap: 2 }}>
      <ValueForm {...rest} schema={of} value={value} onChange={onChange} />
      <Button type="clear" title={THING_WORDS.leaveOut({ label })} onPress={() => onChange(null)} />
    </View>
  );
}

interface FieldsProps {
  readonly names: Names;
  readonly value: Json;
  readonly fields: readonly (readonly [string, JsonObject])[];
  readonly onChange: (value: Json) => void;
}

export function Fields({ names, value, fields, onChange }: FieldsProps) {
  const object: JsonObject = isObject(value) ? value : {};
  return (
    <View style={{ gap: 8 }}>
      {fields.map(([name, schema]) => (
        <ValueForm
          key={name}
          {...{ name, schema, names }}
          value={object[name] ?? null}
          onChange={(next) => onChange({ ...object, [name]: next })}
        />
      ))}
    </View>
  );
}

function ListForm({
  name,
  of,
  label,
  value,
  names,
  onChange,
}: Props & { readonly of: JsonObject; readonly label: string }) {
  const entries: readonly Json[] = Array.isArray(value) ? (value as readonly Json[]) : [];
  const set = (index: number, next: readonly Json[]) =>
    onChange(entries.flatMap((one, at) => (at === index ? next : [one])));
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong">{label}</Words>
      {entries.map((one, index) => (
        <Card key={index}>
          <ValueForm
            {...{ name, names }}
            isEntry
            schema={of}
            value={one}
            onChange={(next) => set(index, [next])}
          />
          <Button type="clear" title={PLAN_WORDS.remove} onPress={() => set(index, [])} />
        </Card>
      ))}
      <Button
        type="clear"
        title={THING_WORDS.addTo({ label })}
        onPress={() => onChange([...entries, emptyOf(of)])}
      />
    </View>
  );
}

function Variant({
  names,
  value,
  variants,
  onChange,
}: Props & { readonly variants: ReadonlyMap<string, JsonObject> }) {
  const object: JsonObject = isObject(value) ? value : {};
  const { kind, ...rest } = object;
  const schema = variants.get(String(kind));
  const form = schema && formOf(schema);
  return (
    <View style={{ gap: 8 }}>
      <Pick
        label={THING_WORDS.which}
        options={[...variants.keys()].map((one) => ({ value: one, title: one }))}
        value={String(kind)}
        onChange={(next) => {
          const other = variants.get(next);
          const empty = other ? emptyOf(other) : {};
          onChange({ ...(isObject(empty) ? empty : {}), kind: next });
        }}
      />
      {form?.kind === 'object' ? (
        <Fields
          names={names}
          value={rest}
          fields={form.fields}
          onChange={(next) => onChange({ ...(isObject(next) ? next : {}), kind: kind ?? '' })}
        />
      ) : null}
    </View>
  );
}

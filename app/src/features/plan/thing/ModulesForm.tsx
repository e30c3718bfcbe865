import { Button } from '@rneui/themed';
import { View } from 'react-native';
import {
  deviceShape,
  moduleBytes,
  offeredBytes,
  type Device,
  type JsonObject,
  type Kind,
} from '@ipsonomo/core/plan';
import { PLAN_WORDS } from '@ipsonomo/language/screens/plan';
import { THING_WORDS } from '@ipsonomo/language/screens/thing';
import { Card, Field, Notice, Pick, Words } from '../../../parts';
import { ValueForm, type Names } from './ValueForm';

interface Props {
  readonly kind: Kind | undefined;
  readonly names: Names;
  readonly value: JsonObject;
  readonly onChange: (value: JsonObject) => void;
}

type Module = Device['modules'][number];

/** Which module sits in which slot, chosen from what the kind offers, and what they come to. */
export function ModulesForm({ kind, names, value, onChange }: Props) {
  if (!kind || kind.modules.length === 0)
    return (
      <ValueForm
        {...{ names }}
        name="modules"
        schema={deviceShape.fields['modules']?.schema ?? {}}
        value={value['modules'] ?? []}
        onChange={(modules) => onChange({ ...value, modules })}
      />
    );
  const modules = modulesOf(value);
  const set = (next: readonly Module[]) =>
    onChange({ ...value, modules: next.map((one) => ({ ...one })) });
  return (
    <View style={{ gap: 12 }}>
      {modules.map((module, index) => (
        <Slot
          key={index}
          {...{ kind, module }}
          onChange={(next) => set(modules.flatMap((one, at) => (at === index ? next : [one])))}
        />
      ))}
      <Button
        type="outline"
        title={THING_WORDS.addAModule}
        onPress={() => set([...modules, nextModule(kind, modules)])}
      />
      <Sums kind={kind} modules={modules} />
    </View>
  );
}

const modulesOf = (value: JsonObject): readonly Module[] =>
  (value['modules'] ?? []) as unknown as readonly Module[];

interface SlotProps {
  readonly kind: Kind;
  readonly module: Module;
  readonly onChange: (next: readonly Module[]) => void;
}

function Slot({ kind, module, onChange }: SlotProps) {
  const fitting = kind.modules.filter(
    (one) => module.slot >= one.firstSlot && module.slot <= one.lastSlot,
  );
  const options = [...new Map(fitting.map((one) => [one.title, one])).values()].map((one) => ({
    ...{ value: one.title, title: one.title },
    detail: THING_WORDS.bytesInOut({ inBytes: one.inBytes, outBytes: one.outBytes }),
  }));
  const isOffered = fitting.some((one) => one.title === module.title);
  return (
    <Card>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <View style={{ width: 72 }}>
          <Field
            label={THING_WORDS.slot}
            numeric
            value={String(module.slot)}
            onChange={(text) => onChange([{ ...module, slot: Number(text.replace(/\D/g, '')) }])}
          />
        </View>
        <View style={{ flex: 1 }}>
          <Pick
            label={THING_WORDS.module}
            options={
              isOffered ? options : [{ value: module.title, title: module.title }, ...options]
            }
            value={module.title}
            onChange={(title) => onChange([{ ...module, title }])}
          />
        </View>
      </View>
      {isOffered ? null : (
        <Notice tone="ochre">
          {THING_WORDS.offersNoForSlot({ name: kind.name, title: module.title, slot: module.slot })}
        </Notice>
      )}
      <Button type="clear" title={PLAN_WORDS.remove} onPress={() => onChange([])} />
    </Card>
  );
}

/** In the next slot after the last, whatever fits there first. */
function nextModule(kind: Kind, modules: readonly Module[]): Module {
  const least = Math.min(...kind.modules.map((one) => one.firstSlot));
  const slot = modules.length === 0 ? least : Math.max(...modules.map((one) => one.slot)) + 1;
  const fits = kind.modules.find((one) => slot >= one.firstSlot && slot <= one.lastSlot);
  return { slot, title: (fits ?? kind.modules[0])?.title ?? '' };
}

function Sums({ kind, modules }: { readonly kind: Kind; readonly modules: readonly Module[] }) {
  if (modules.length === 0) return null;
  const need = moduleBytes({ modules }, kind);
  const offered = offeredBytes({ modules }, kind);
  const words = (way: string, bytes: number, size: number) =>
    THING_WORDS.byte({ bytes, way, size: size === bytes ? '' : THING_WORDS.offeredAs({ size }) });
  return (
    <Words size="strong">
      {THING_WORDS.together({
        value: words('in', need.inBytes, offered.inBytes),
        value2: words('out', need.outBytes, offered.outBytes),
      })}
    </Words>
  );
}

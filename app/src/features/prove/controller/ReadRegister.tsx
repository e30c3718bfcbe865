import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import { evidenceWords } from '@ipsonomo/language';
import { registerAsked } from '@ipsonomo/core/entered';
import { findKind, type ConnectionEnd, type Plan } from '@ipsonomo/core/plan';
import { speaksModbus } from '@ipsonomo/core/proof';
import { CONTROLLER_WORDS } from '@ipsonomo/language/screens/controller';
import { acts, reading, useAct } from '../../../data';
import { Card, Field, Pick, Refusals, timeOf, Words, useDraft, useKept } from '../../../parts';
import { issuesOf } from '../../words';

const COUNTINGS: readonly { readonly value: ConnectionEnd['counting']; readonly title: string }[] =
  [
    { value: 'from-0', title: CONTROLLER_WORDS.from0 },
    { value: 'from-1', title: CONTROLLER_WORDS.from1 },
    { value: 'area-digit', title: CONTROLLER_WORDS.withAnAreaDigit40001 },
  ];

const ITSELF = 255;

/** One register of a device, or of one on a line behind a gateway: read, never written. */
export function ReadRegister({ job, plan }: { readonly job: string; readonly plan: Plan }) {
  const devices = plan.devices.filter((device) => {
    const kind = findKind(plan, device.kindId);
    return kind !== undefined && speaksModbus(kind) && device.interfaces.length > 0;
  });
  const [kept, setAt] = useDraft(`register of ${job}`);
  const all = devices.flatMap(({ interfaces }) => interfaces);
  // One that is gone meanwhile is no choice any more.
  const at = (all.find(({ id }) => id === kept) ?? all[0])?.id ?? '';
  const [unit, setUnit] = useKept(`register unit ${job}`, ITSELF);
  const [counting, setCounting] = useKept<ConnectionEnd['counting']>(
    `register counting ${job}`,
    'from-0',
  );
  const [written, setWritten] = useDraft(`register ${job}`);
  const read = useAct(acts.readRegister, { job, interface: at });
  const evidence =
    useQuery({ ...reading(acts.readEvidence, { job, interface: at }), enabled: at !== '' }).data ??
    [];
  const last = evidence.find((one) => one.kind === 'register-read');
  const device = devices.find(({ interfaces }) => interfaces.some(({ id }) => id === at));
  if (devices.length === 0) return null;
  const units = (device?.lines ?? []).flatMap((line) =>
    line.units.map((one) => ({ value: one.unit, title: `${one.unit}: ${one.title}` })),
  );
  const asked = written === '' ? undefined : registerAsked(written, counting);
  const isFine = last?.facts.value !== undefined;
  return (
    <Card>
      <Words size="strong" heading={2}>
        {CONTROLLER_WORDS.readOneRegister}
      </Words>
      <Pick
        label={CONTROLLER_WORDS.of}
        options={devices.flatMap(({ title, interfaces }) =>
          interfaces.map(({ id }) => ({ value: id, title })),
        )}
        value={at}
        onChange={setAt}
      />
      <Pick
        label={CONTROLLER_WORDS.unit}
        options={[{ value: ITSELF, title: CONTROLLER_WORDS.theDeviceItself }, ...units]}
        value={unit}
        onChange={setUnit}
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={CONTROLLER_WORDS.register}
            value={written}
            onChange={setWritten}
            issue={asked && !asked.ok ? asked.error : undefined}
            figures
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Pick
            label={CONTROLLER_WORDS.counted}
            options={COUNTINGS}
            value={counting}
            onChange={setCounting}
          />
        </View>
      </View>
      {last ? (
        <Words size="second" tone={isFine ? 'moss' : 'brick'}>
          {isFine ? '✓ ' : '× '}
          {evidenceWords(last)} · {timeOf(last.at)}
        </Words>
      ) : null}
      <Refusals issues={issuesOf(read.error)} />
      <Button
        type="outline"
        title={CONTROLLER_WORDS.readIt}
        disabled={!asked?.ok}
        loading={read.isPending}
        onPress={() => read.mutate({ unit, written: written.trim(), counting })}
      />
    </Card>
  );
}

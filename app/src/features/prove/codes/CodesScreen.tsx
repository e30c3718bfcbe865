import { useState } from 'react';
import { View } from 'react-native';
import {
  besideCode,
  formatCode,
  readCode,
  type CodeReading,
  type CodeSystem,
} from '@ipsonomo/core/codes';
import type { Plan } from '@ipsonomo/core/plan';
import { Card, Choice, Field, Notice, Page, Pick, Words } from '../../../parts';
import { usePlan } from '../../../data';

const SYSTEMS: readonly {
  readonly value: CodeSystem;
  readonly title: string;
  readonly detail: string;
}[] = [
  {
    value: 'cip',
    title: 'EtherNet/IP, general',
    detail: 'two digits, "01", perhaps with a second number',
  },
  { value: 'cip-connection', title: 'EtherNet/IP, connection', detail: 'four digits, "0127"' },
  { value: 'modbus', title: 'Modbus exception', detail: 'one number, 1 to 11' },
  { value: 'station', title: 'Layer 2, refused set', detail: 'one number, 1 to 6' },
];

const NOBODY = '';

/** What an error code of the open standards means, and what the plan says beside it. */
export function CodesScreen({ job }: { readonly job: string }) {
  const { plan } = usePlan(job);
  const [system, setSystem] = useState<CodeSystem>('cip-connection');
  const [text, setText] = useState('');
  const [deviceId, setDevice] = useState(NOBODY);
  const readings = readCode(text, system);
  return (
    <Page>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          What does this code mean?
        </Words>
        <Words tone="second">As a controller, a tool or a panel shows it, hex or decimal.</Words>
      </View>
      <Choice label="Where is it from?" options={SYSTEMS} value={system} onChange={setSystem} />
      <Field label="The code" value={text} onChange={setText} placeholder="16#0127" />
      {plan ? (
        <Pick
          label="Of which device?"
          options={[
            { value: NOBODY, title: 'no device in particular' },
            ...plan.devices.map((one) => ({ value: one.id, title: one.title })),
          ]}
          value={deviceId}
          onChange={setDevice}
        />
      ) : null}
      {text.trim() !== '' && readings.length === 0 ? (
        <Notice tone="ochre" title="There is no number in it">
          Type the digits, as 0127, 16#0127, 0x0127 or 295.
        </Notice>
      ) : null}
      {readings.map((one) => (
        <Reading key={`${one.system} ${one.value}`} {...{ one, plan, deviceId }} />
      ))}
    </Page>
  );
}

interface ReadingProps {
  readonly one: CodeReading;
  readonly plan: Plan | undefined;
  readonly deviceId: string;
}

function Reading({ one, plan, deviceId }: ReadingProps) {
  const { meaning } = one;
  if (!meaning)
    return (
      <Notice tone="ochre" title={`${formatCode(one)} is not in the table`}>
        It may be a code of the maker: look in the papers of the kind.
      </Notice>
    );
  const device = plan?.devices.find(({ id }) => id === deviceId);
  const beside = plan && device ? besideCode(plan, device, meaning.topic) : [];
  return (
    <Card>
      <Words size="second" tone="second">
        {`${formatCode(one)} · ${meaning.name}`}
      </Words>
      <Words size="device" heading={2}>
        {meaning.means}
      </Words>
      <Words>{meaning.look}</Words>
      {beside.map((sentence) => (
        <Notice key={sentence} tone="plain">
          {sentence}
        </Notice>
      ))}
    </Card>
  );
}

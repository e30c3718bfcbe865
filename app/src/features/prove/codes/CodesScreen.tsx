import { useState } from 'react';
import { View } from 'react-native';
import { formatCode, readCode, type CodeReading, type CodeSystem } from '@ipsonomo/core/codes';
import type { Plan } from '@ipsonomo/core/plan';
import { besideCode, codeWords } from '@ipsonomo/language/codes';
import { CODES_WORDS } from '@ipsonomo/language/screens/codes';
import { Card, Choice, Field, Notice, Page, Pick, useDraft, Words } from '../../../parts';
import { usePlan } from '../../../data';

const SYSTEMS: readonly {
  readonly value: CodeSystem;
  readonly title: string;
  readonly detail: string;
}[] = [
  {
    value: 'cip',
    title: CODES_WORDS.ethernetIpGeneral,
    detail: CODES_WORDS.twoDigits01PerhapsWithA,
  },
  {
    value: 'cip-connection',
    title: CODES_WORDS.ethernetIpConnection,
    detail: CODES_WORDS.fourDigits0127,
  },
  { value: 'modbus', title: CODES_WORDS.modbusException, detail: CODES_WORDS.oneNumber1To11 },
  { value: 'station', title: CODES_WORDS.layer2RefusedSet, detail: CODES_WORDS.oneNumber1To6 },
];

const NOBODY = '';

/** What an error code of the open standards means, and what the plan says beside it. */
export function CodesScreen({ job }: { readonly job: string }) {
  const { plan } = usePlan(job);
  const [system, setSystem] = useState<CodeSystem>('cip-connection');
  const [text, setText] = useDraft('code');
  const [deviceId, setDevice] = useState(NOBODY);
  const readings = readCode(text, system);
  return (
    <Page>
      <View style={{ gap: 4 }}>
        <Words size="title" heading={1}>
          {CODES_WORDS.whatDoesThisCodeMean}
        </Words>
        <Words tone="second">{CODES_WORDS.asAControllerAToolOr}</Words>
      </View>
      <Choice
        label={CODES_WORDS.whereIsItFrom}
        options={SYSTEMS}
        value={system}
        onChange={setSystem}
      />
      <Field label={CODES_WORDS.theCode} value={text} onChange={setText} placeholder="16#0127" />
      {plan ? (
        <Pick
          label={CODES_WORDS.ofWhichDevice}
          options={[
            { value: NOBODY, title: CODES_WORDS.noDeviceInParticular },
            ...plan.devices.map((one) => ({ value: one.id, title: one.title })),
          ]}
          value={deviceId}
          onChange={setDevice}
        />
      ) : null}
      {text.trim() !== '' && readings.length === 0 ? (
        <Notice tone="ochre" title={CODES_WORDS.thereIsNoNumberInIt}>
          {CODES_WORDS.typeTheDigitsAs012716}
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
  const { meaning, system, value } = one;
  const words = codeWords(system, value);
  if (!meaning || !words)
    return (
      <Notice tone="ochre" title={CODES_WORDS.isNotInTheTable({ one: formatCode(one) })}>
        {CODES_WORDS.itMayBeACodeOf}
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
        {words.means}
      </Words>
      <Words>{words.look}</Words>
      {beside.map((sentence) => (
        <Notice key={sentence} tone="plain">
          {sentence}
        </Notice>
      ))}
    </Card>
  );
}

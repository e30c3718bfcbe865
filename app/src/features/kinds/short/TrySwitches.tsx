import { View } from 'react-native';
import { sentenceOf } from '@ipsonomo/language';
import { formatPrefix, parseIpv4, type Prefix } from '@ipsonomo/core/net';
import { setForAddress, type SwitchFace as Face } from '@ipsonomo/core/switches';
import { readAddress } from '@ipsonomo/core/sheet';
import { KIND_FORM_WORDS } from '@ipsonomo/language/screens/kind-form';
import { Field, Notice, SwitchFace, Words, useDraft } from '../../../parts';
import { SwitchReader } from '../../switches';

interface Props {
  readonly face: Face;
  readonly network: Prefix;
}

/** The drawing tried in both directions: what a position means, and how it must stand for an address. */
export function TrySwitches({ face, network }: Props) {
  return (
    <View style={{ gap: 10 }}>
      <Words size="strong" heading={3}>
        {KIND_FORM_WORDS.tryIt({ network: formatPrefix(network) })}
      </Words>
      <SwitchReader {...{ face, network }} />
      <ForAddress {...{ face, network }} />
    </View>
  );
}

function ForAddress({ face, network }: Props) {
  const [text, setText] = useDraft('try switches');
  const short = readAddress(text.trim(), { prefix: network });
  const address = short.ok ? parseIpv4(short.value) : short;
  const setting = address.ok ? setForAddress(face, address.value, network) : undefined;
  return (
    <>
      <Field
        label={KIND_FORM_WORDS.howItMustStandFor}
        value={text}
        onChange={setText}
        placeholder=".86"
        issue={text.trim() === '' || address.ok ? undefined : address.error}
        figures
      />
      {setting?.ok ? <SwitchFace face={face} positions={setting.value.positions} /> : null}
      {setting && !setting.ok ? (
        <Notice tone="ochre" title={KIND_FORM_WORDS.itCannotStandSo}>
          {sentenceOf(setting.error)}
        </Notice>
      ) : null}
    </>
  );
}

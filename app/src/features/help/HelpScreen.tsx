import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { STAGES } from '@ipsonomo/core/plan';
import { HELP_WORDS } from '@ipsonomo/language/screens/help';
import { Page, StageNotches, Words } from '../../parts';
import { helpOf, WORDS } from './help-of';

const STAGE_HELP = [
  HELP_WORDS.planned,
  HELP_WORDS.heard,
  HELP_WORDS.given,
  HELP_WORDS.pinned,
  HELP_WORDS.proven,
];

/** What a page is for, what the stages and the words mean. It is here without any network. */
export function HelpScreen({ of }: { readonly of: string | undefined }) {
  const router = useRouter();
  const text = helpOf(of ?? '');
  return (
    <Page
      maxWidth={820}
      action={<Button size="lg" title={HELP_WORDS.back} onPress={() => router.back()} />}
    >
      <Words size="title" heading={1}>
        {HELP_WORDS.help}
      </Words>
      {text === undefined ? null : (
        <View style={{ gap: 4 }}>
          <Words size="strong" heading={2}>
            {HELP_WORDS.thePage}
          </Words>
          <Words>{text}</Words>
        </View>
      )}
      <StageList />
      <View style={{ gap: 6 }}>
        <Words size="strong" heading={2}>
          {HELP_WORDS.theWords}
        </Words>
        {WORDS.map((word) => (
          <Words key={word}>{word}</Words>
        ))}
      </View>
      <Button
        type="outline"
        title={HELP_WORDS.firstSteps}
        onPress={() => router.navigate('/first')}
      />
    </Page>
  );
}

/** The stages with their shapes, as they stand beside every device. */
export function StageList() {
  return (
    <View style={{ gap: 8 }}>
      <Words size="strong" heading={2}>
        {HELP_WORDS.theStages}
      </Words>
      {STAGES.map((stage, at) => (
        <View key={stage} style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <StageNotches size={22} notches={[{ stage, state: 'reached', by: null }]} />
          <View style={{ flex: 1 }}>
            <Words>{STAGE_HELP[at]}</Words>
          </View>
        </View>
      ))}
    </View>
  );
}

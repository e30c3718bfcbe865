import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import { Row, Words } from '../../../parts';
import { helpOf } from '../../help';

/** Their paths, in the order in which they are needed on site. */
export const TOOLS = [
  ['known', PROVE_WORDS.whatOthersKnowAlready],
  ['picture', COMMON_WORDS.theSiteAsItIsConnected],
  ['routes', COMMON_WORDS.routesThereAndBack],
  ['controller', PROVE_WORDS.asTheControllerHasIt],
  ['codes', PROVE_WORDS.whatDoesACodeMean],
  ['vigil', PROVE_WORDS.vigil],
  ['drill', PROVE_WORDS.coldStart],
  ['runs', PROVE_WORDS.keptRuns],
] as const;

interface Props {
  readonly job: string;
  readonly tools?: readonly (readonly [path: string, title: string])[];
}

/** What else there is to look with, and what each is for. */
export function ToolList({ job, tools = TOOLS }: Props) {
  const router = useRouter();
  return (
    <View>
      {tools.map(([path, title]) => (
        <Row key={path} label={title} onPress={() => router.navigate(`/job/${job}/${path}`)}>
          <Words size="strong">{title}</Words>
          <Words size="second" tone="second">
            {helpOf(path)}
          </Words>
        </Row>
      ))}
    </View>
  );
}

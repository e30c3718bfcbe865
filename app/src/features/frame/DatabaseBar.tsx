import { View } from 'react-native';
import { FRAME_WORDS } from '@ipsonomo/language/screens/frame';
import { useAway, useDatabaseAway } from '../../data';
import { timeOf, Words } from '../../parts';
import { SPACE, useColours } from '../../theme';

/** That the laptop has lost the database of the crew: what goes on all the same, and what waits. */
export function DatabaseBar() {
  const since = useDatabaseAway();
  const away = useAway();
  const colours = useColours();
  // Without the server nobody knows how it stands with its database.
  if (since === undefined || away !== undefined) return null;
  return (
    <View
      role="status"
      style={{
        ...{ paddingVertical: 8, paddingHorizontal: SPACE.page },
        ...{ borderBottomWidth: 1, borderBottomColor: colours.line },
      }}
    >
      <Words size="second" tone="brick">
        {FRAME_WORDS.databaseAwaySince({ since: timeOf(since) })}
      </Words>
    </View>
  );
}

import { Button } from '@rneui/themed';
import { Linking } from 'react-native';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { acts, useAct } from '../../../data';
import { Refusals, Words } from '../../../parts';
import { issuesOf } from '../../words';
import type { Call } from './CallPage';

/** The page of the device, through the wire, in a page of its own beside this one. */
export function OpenPage({ call }: { readonly call: Call }) {
  const open = useAct(acts.openPage, { job: call.job, interface: call.at.id });
  const show = async () => {
    const { port, path } = await open.mutateAsync();
    const { protocol, hostname } = globalThis.location;
    await Linking.openURL(`${protocol}//${hostname}:${port}${path}`);
  };
  return (
    <>
      <Refusals issues={issuesOf(open.error)} />
      <Button
        size="lg"
        title={CALL_WORDS.openItsPage}
        loading={open.isPending}
        // A refusal is shown from the mutation itself.
        onPress={() => void show().catch(() => undefined)}
      />
      <Words size="caption" tone="second" align="center">
        {CALL_WORDS.thisPageGoesOnLookingFor({ address: call.at.address })}
      </Words>
    </>
  );
}

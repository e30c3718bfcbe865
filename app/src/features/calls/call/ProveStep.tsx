import { Button } from '@rneui/themed';
import { useRouter } from 'expo-router';
import { evidenceWords } from '@ipsonomo/language';
import { CALL_WORDS } from '@ipsonomo/language/screens/call';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { acts, useAct, usePlan, useWire } from '../../../data';
import { Notice, Refusals, timeOf } from '../../../parts';
import { awaitedOf } from '../assign/awaited';
import { useRound } from '../assign/use-round';
import { issuesOf } from '../../words';
import { Bound } from './Bound';
import { CallPage, type Call } from './CallPage';

/** It stays: ask it as a stranger would, then on to the next. */
export function ProveStep({ call }: { readonly call: Call }) {
  const { at, job } = call;
  const router = useRouter();
  const { field, now } = useWire();
  const { view } = usePlan(job);
  const { order } = useRound(job);
  const check = useAct(acts.check, { job });
  const asking = field?.tasks.some((one) => one.kind === 'check' && one.interfaceId === at.id);
  const awaited = view ? awaitedOf(view, order, now) : [];
  const [next] = awaited;
  const { kindId, way } = call.device;
  const alike = awaited.find(({ device }) => device.kindId === kindId && device.way === way);
  const proven = at.check?.kind === 'found-as-planned';
  const ask = (
    <Button
      size="lg"
      type={proven ? 'outline' : 'solid'}
      title={proven ? CALL_WORDS.askItAgain : CALL_WORDS.proveItArpAndPing}
      loading={asking || check.isPending}
      onPress={() => check.mutate({ interfaceIds: [at.id] })}
    />
  );
  const onward = next ? (
    <Button
      size="lg"
      title={CALL_WORDS.next({ title: next.device.title })}
      onPress={() => router.navigate(`/job/${job}/call/${next.at.id}`)}
    />
  ) : (
    <Button
      size="lg"
      title={CALL_WORDS.toTheProof}
      onPress={() => router.navigate(`/job/${job}/prove`)}
    />
  );
  return (
    <CallPage call={call} action={proven ? onward : ask}>
      <Refusals issues={issuesOf(check.error)} />
      {at.check ? (
        <Notice
          tone={proven ? 'moss' : 'brick'}
          title={proven ? COMMON_WORDS.proven : CALL_WORDS.notAsPlanned}
        >
          {`${evidenceWords(at.check)} (${timeOf(at.check.at)})`}
        </Notice>
      ) : (
        <Notice tone="moss" title={CALL_WORDS.theAddressStays}>
          {CALL_WORDS.itCameBackWithItAfter}
        </Notice>
      )}
      {alike && alike !== next ? (
        <Button
          type="outline"
          title={CALL_WORDS.nextOfTheSame({ title: alike.device.title })}
          onPress={() => router.navigate(`/job/${job}/call/${alike.at.id}`)}
        />
      ) : null}
      {proven ? ask : null}
      <Bound call={call} />
    </CallPage>
  );
}

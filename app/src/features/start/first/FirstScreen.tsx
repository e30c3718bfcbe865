import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { formatPrefix, readNetwork } from '@ipsonomo/core/net';
import { FIRST_WORDS } from '@ipsonomo/language/screens/first';
import {
  acts,
  adaptersQuery,
  changeSettings,
  FIRST_STEPS,
  useAct,
  useActOn,
  useSettings,
  type FirstSteps,
} from '../../../data';
import { Choice, Field, Page, Refusals, Words } from '../../../parts';
import { StageList } from '../../help';
import { issuesOf } from '../../words';

const REHEARSE = '';

/** Three screens from nothing to a job with its first subnet. What was said is kept in this browser until it is done. */
export function FirstScreen() {
  const { first } = useSettings();
  const steps = first ?? FIRST_STEPS;
  const set = (part: Partial<FirstSteps>) => changeSettings({ first: { ...steps, ...part } });
  const shared = { steps, set };
  if (steps.step === 1) return <WhoAreYou {...shared} />;
  return steps.step === 2 ? <TheJob {...shared} /> : <TheSubnet {...shared} />;
}

interface StepProps {
  readonly steps: FirstSteps;
  readonly set: (part: Partial<FirstSteps>) => void;
}

interface FrameProps extends StepProps {
  readonly title: string;
  readonly text: string;
  readonly isReady: boolean;
  readonly next: { readonly title: string; readonly isBusy?: boolean; readonly go: () => void };
  readonly children: React.ReactNode;
}

function StepFrame({ steps, set, title, text, isReady, next, children }: FrameProps) {
  const router = useRouter();
  return (
    <Page
      maxWidth={640}
      action={
        <Button
          size="lg"
          title={next.title}
          disabled={!isReady}
          loading={next.isBusy ?? false}
          onPress={next.go}
        />
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="second" tone="second">
          {FIRST_WORDS.step({ step: steps.step })}
        </Words>
        <Words size="title" heading={1}>
          {title}
        </Words>
        <Words>{text}</Words>
      </View>
      {children}
      {steps.step > 1 ? (
        <Button
          type="outline"
          title={FIRST_WORDS.before}
          onPress={() => set({ step: steps.step === 3 ? 2 : 1 })}
        />
      ) : null}
      <Button type="clear" title={FIRST_WORDS.leave} onPress={() => router.navigate('/')} />
    </Page>
  );
}

function WhoAreYou(props: StepProps) {
  const { person } = useSettings();
  const next = { title: FIRST_WORDS.next, go: () => props.set({ step: 2 }) };
  return (
    <StepFrame
      {...props}
      title={FIRST_WORDS.firstSteps}
      text={FIRST_WORDS.whatItIs}
      isReady={person.trim() !== ''}
      next={next}
    >
      <Field
        label={FIRST_WORDS.yourName}
        value={person}
        onChange={(typed) => changeSettings({ person: typed })}
      />
      <StageList />
    </StepFrame>
  );
}

function TheJob(props: StepProps) {
  const { steps, set } = props;
  const { data: adapters = [] } = useQuery(adaptersQuery);
  const next = { title: FIRST_WORDS.next, go: () => set({ step: 3 }) };
  const wires = [
    { value: REHEARSE, title: FIRST_WORDS.rehearse, detail: FIRST_WORDS.rehearseMore },
    ...adapters
      .filter(({ job }) => job === null)
      .map(({ name }) => ({
        ...{ value: name, title: name, detail: FIRST_WORDS.adapterMore({ name }) },
      })),
  ];
  return (
    <StepFrame
      {...props}
      title={FIRST_WORDS.yourFirstJob}
      text={FIRST_WORDS.aJobIs}
      isReady={steps.job.trim() !== ''}
      next={next}
    >
      <Field
        label={FIRST_WORDS.whatItIsCalled}
        value={steps.job}
        onChange={(job) => set({ job })}
        placeholder={FIRST_WORDS.forInstance}
      />
      <Choice
        label={FIRST_WORDS.whereWillYouListen}
        options={wires}
        value={steps.wire}
        onChange={(wire) => set({ wire })}
      />
    </StepFrame>
  );
}

function TheSubnet(props: StepProps) {
  const { steps, set } = props;
  const begin = useBegin(steps, set);
  const network = readNetwork(steps.network);
  const next = { title: FIRST_WORDS.begin, isBusy: begin.isBusy, go: begin.go };
  return (
    <StepFrame
      {...props}
      title={FIRST_WORDS.theFirstSubnet}
      text={FIRST_WORDS.aSubnetIs}
      isReady={steps.subnet.trim() !== '' && network.ok}
      next={next}
    >
      <Field
        label={FIRST_WORDS.itsName}
        value={steps.subnet}
        onChange={(subnet) => set({ subnet })}
      />
      <Field
        label={FIRST_WORDS.itsNetwork}
        value={steps.network}
        onChange={(typed) => set({ network: typed })}
        placeholder="192.168.10.0 255.255.255.0"
        issue={steps.network === '' || network.ok ? undefined : network.error}
        figures
      />
      <Refusals issues={issuesOf(begin.error)} />
    </StepFrame>
  );
}

/**
 * The job, its wire and its subnet, one after the other. Where something of it is refused what was made before stays, and
 * the next try goes on from there.
 */
function useBegin(steps: FirstSteps, set: (part: Partial<FirstSteps>) => void) {
  const router = useRouter();
  const addJob = useAct(acts.addJob, {});
  const chooseWire = useActOn(acts.chooseWire);
  const addSubnet = useActOn(acts.addSubnet);
  const go = async () => {
    const network = readNetwork(steps.network);
    if (!network.ok) return;
    const id = steps.jobId || (await addJob.mutateAsync({ name: steps.job })).id;
    set({ jobId: id });
    if (steps.wire !== REHEARSE)
      await chooseWire.mutateAsync({
        params: { job: id },
        body: { kind: 'live', adapter: steps.wire },
      });
    await addSubnet.mutateAsync({
      params: { job: id },
      body: {
        ...{ name: steps.subnet.trim(), network: formatPrefix(network.value) },
        ...{ gateway: null, vlan: null, purpose: '' },
      },
    });
    changeSettings({ first: null });
    router.navigate(`/job/${id}/new-devices`);
  };
  return {
    // What was refused is told by the act itself.
    go: () => void go().catch(() => undefined),
    isBusy: addJob.isPending || chooseWire.isPending || addSubnet.isPending,
    error: addJob.error ?? chooseWire.error ?? addSubnet.error,
  };
}

import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import { sourceWords } from '@ipsonomo/language';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { acts, chooseFile, fetchPieces, hearCapture, pathOf, reading } from '../../../data';
import { LongField, Refusals, Row, useDraft, Words } from '../../../parts';
import { readOfCapture, readOfText, type Read } from './read';

interface Props {
  readonly job: string;
  readonly isRead: boolean;
  readonly onRead: (read: Read | undefined) => void;
}

const CAPTURE = /\.(pcap|pcapng|cap)$/i;
const FILES = '.pcap,.pcapng,.cap,.leases,.conf,.csv,.json,.txt,.log';
const MEGABYTE = 1_000_000;

/** Where it comes from: a file, the captures of this job, or what is pasted. */
export function Sources({ job, isRead, onRead }: Props) {
  const [text, setText] = useDraft(`known elsewhere ${job}`);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const capture = useCaptureReader(onRead, setIssues);
  const take = (typed: string) => {
    setText(typed);
    const read = typed.trim() === '' ? undefined : readOfText(typed);
    setIssues(read && !read.ok ? [read.error] : []);
    onRead(read?.ok ? read.value : undefined);
  };
  // What was pasted before is there again; it is read once, when the page opens.
  useEffect(() => {
    if (text.trim() !== '') take(text);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const choose = async () => {
    const file = await chooseFile(FILES);
    if (!file) return;
    if (CAPTURE.test(file.name))
      await capture.read(file.name, () => Promise.resolve(file.stream()));
    else take(await file.text());
  };
  const leave = () => {
    setIssues([]);
    take('');
  };
  if (isRead) return <Button type="outline" title={KNOWN_WORDS.otherThanCapture} onPress={leave} />;
  return (
    <View style={{ gap: 12 }}>
      <Button
        type="outline"
        title={KNOWN_WORDS.chooseAFile}
        loading={capture.progress !== undefined}
        onPress={() => void choose()}
      />
      {capture.progress ? <Words>{capture.progress}</Words> : null}
      <LongField label={KNOWN_WORDS.orPasteItHere} value={text} onChange={take} />
      <Refusals issues={issues} />
      <OwnCaptures job={job} read={capture.read} />
    </View>
  );
}

type ReadCapture = (name: string, open: () => Promise<ReadableStream<Uint8Array>>) => Promise<void>;

/** One capture at a time; who leaves the page ends it. */
function useCaptureReader(onRead: Props['onRead'], onIssues: (issues: readonly Issue[]) => void) {
  const [progress, setProgress] = useState<string>();
  const isHere = useRef(true);
  useEffect(
    () => () => {
      isHere.current = false;
    },
    [],
  );
  const read: ReadCapture = async (name, open) => {
    const told = (bytes: number) =>
      setProgress(KNOWN_WORDS.readsCapture({ name, megabytes: Math.ceil(bytes / MEGABYTE) }));
    told(0);
    onIssues([]);
    try {
      const heard = await hearCapture(name, await open(), told);
      if (!isHere.current) return;
      if (heard.ok) onRead(readOfCapture(heard.value));
      else onIssues([heard.error]);
    } catch {
      onIssues([{ code: 'server.away', where: '' }]);
    } finally {
      setProgress(undefined);
    }
  };
  return { progress, read };
}

function OwnCaptures({ job, read }: { readonly job: string; readonly read: ReadCapture }) {
  const { data: runs = [] } = useQuery(reading(acts.listRuns, { job }));
  if (runs.length === 0) return null;
  return (
    <View>
      <Words size="strong" heading={2}>
        {KNOWN_WORDS.capturesOfThisJob}
      </Words>
      {runs.map((run) => {
        const name = KNOWN_WORDS.heardFrom({ startedAt: format(run.startedAt, 'd MMM HH:mm') });
        const path = pathOf(acts.fetchCapture, { job, run: run.id });
        return (
          <Row key={run.id} label={name} onPress={() => void read(name, () => fetchPieces(path))}>
            <Words size="strong">{name}</Words>
            <Words size="second" tone="second">
              {sourceWords(run.source)} · {run.person}
            </Words>
          </Row>
        );
      })}
    </View>
  );
}

import { Button } from '@rneui/themed';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { Issue } from '@ipsonomo/core/net';
import { isCapture } from '@ipsonomo/core/wire';
import { sourceWords } from '@ipsonomo/language';
import { KNOWN_WORDS } from '@ipsonomo/language/screens/known';
import { acts, chooseFile, fetchPieces, hearCapture, pathOf, reading } from '../../../data';
import { LongField, Refusals, Row, Words } from '../../../parts';
import { readOfCapture, type Read } from './read';

interface Props {
  readonly job: string;
  /** What is pasted, and what is wrong with it. */
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly refused: readonly Issue[];
  readonly onCapture: (read: Read) => void;
}

const CAPTURE = /\.(pcap|pcapng|cap)$/i;
const FILES = '.pcap,.pcapng,.cap,.leases,.conf,.csv,.json,.txt,.log';
const MEGABYTE = 1_000_000;

/** Where it comes from: a file, the captures of this job, or what is pasted. */
export function Sources({ job, text, onText, refused, onCapture }: Props) {
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const capture = useCaptureReader(onCapture, setIssues);
  const choose = async () => {
    const file = await chooseFile(FILES);
    if (!file) return;
    const beginning = new Uint8Array(await file.slice(0, 4).arrayBuffer());
    if (CAPTURE.test(file.name) || isCapture(beginning))
      await capture.read(file.name, () => Promise.resolve(file.stream()));
    else onText(await file.text());
  };
  return (
    <View style={{ gap: 12 }}>
      <Button
        type="outline"
        title={KNOWN_WORDS.chooseAFile}
        loading={capture.progress !== undefined}
        onPress={() => void choose()}
      />
      {capture.progress ? <Words>{capture.progress}</Words> : null}
      <LongField label={KNOWN_WORDS.orPasteItHere} value={text} onChange={onText} />
      <Refusals issues={issues.length > 0 ? issues : refused} />
      <OwnCaptures job={job} read={capture.read} />
    </View>
  );
}

type ReadCapture = (name: string, open: () => Promise<ReadableStream<Uint8Array>>) => Promise<void>;

/** One capture at a time; who leaves the page ends it. */
function useCaptureReader(
  onRead: Props['onCapture'],
  onIssues: (issues: readonly Issue[]) => void,
) {
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

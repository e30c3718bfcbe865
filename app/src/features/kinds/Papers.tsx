import { Button } from '@rneui/themed';
import { Pressable, View } from 'react-native';
import type { Kind, Paper, PlanDoc } from '@ipsonomo/core/plan';
import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { KINDS_WORDS } from '@ipsonomo/language/screens/kinds';
import {
  acts,
  carriedUrl,
  chooseFile,
  paperPath,
  useAct,
  useCarried,
  useCarry,
  useEdit,
} from '../../data';
import { Refusals, Words } from '../../parts';
import { TOUCH } from '../../theme';
import { issuesOf, sizeWords } from '../words';
import { editsOfPapers, paperKindOf, withPaper } from './kind-edits';

/** The papers of a kind, each opened by a touch: there is no internet at the cabinet. */
export function PaperList({ job, papers, onTake }: ListProps) {
  const carried = useCarried();
  return (
    <View>
      {papers.map((paper) => (
        <View key={paper.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Pressable
            {...(carried?.has(paper.id)
              ? { role: 'link' as const, onPress: () => void openCarried(paper) }
              : opensBeside(paperPath(job, paper)))}
            accessibilityLabel={COMMON_WORDS.open({ name: paper.name })}
            style={{ minHeight: TOUCH, justifyContent: 'center', flex: 1 }}
          >
            <Words size="strong" tone="plum" lines={1}>
              {paper.name}
            </Words>
            <Words size="caption" tone="second">
              {[
                PAPER_WORDS[paper.what],
                sizeWords(paper.bytes),
                ...(carried?.has(paper.id) ? [KINDS_WORDS.onThisPhone] : []),
              ].join(', ')}
            </Words>
          </Pressable>
          {onTake ? (
            <Button
              type="clear"
              title={KINDS_WORDS.takeAway}
              accessibilityLabel={KINDS_WORDS.takeAway2({ name: paper.name })}
              onPress={() => onTake(paper)}
            />
          ) : null}
        </View>
      ))}
      {carried && papers.length > 0 ? <Carry job={job} papers={papers} carried={carried} /> : null}
    </View>
  );
}

async function openCarried(paper: Paper): Promise<void> {
  const url = await carriedUrl(paper);
  if (url !== undefined) globalThis.open(url, '_blank');
}

interface CarryProps extends Omit<ListProps, 'onTake'> {
  readonly carried: ReadonlyMap<string, number>;
}

/** Taken along, they open without a network; it is said how much room they take and what is missing. */
function Carry({ job, papers, carried }: CarryProps) {
  const carry = useCarry(job);
  const missing = papers.filter(({ id }) => !carried.has(id));
  const room = sizeWords(missing.reduce((sum, { bytes }) => sum + bytes, 0));
  const some = missing.length < papers.length;
  return (
    <View style={{ alignItems: 'flex-start', gap: 4 }}>
      {missing.length > 0 ? (
        <Button
          type="outline"
          title={
            some
              ? KINDS_WORDS.carryTheRest({ count: missing.length, room })
              : KINDS_WORDS.carryThem({ room })
          }
          loading={carry.isPending}
          onPress={() => carry.mutate({ papers: missing, takes: true })}
        />
      ) : (
        <Button
          type="clear"
          title={KINDS_WORDS.carriedLetGo}
          loading={carry.isPending}
          onPress={() => carry.mutate({ papers, takes: false })}
        />
      )}
      {(carry.data ?? 0) > 0 ? (
        <Words size="second" tone="brick">
          {KINDS_WORDS.couldNotBeCarried({ count: carry.data ?? 0 })}
        </Words>
      ) : null}
    </View>
  );
}

/** A link of the browser's own, to a file beside this page; React Native's types know none. */
const opensBeside = (href: string): object => ({
  href,
  hrefAttrs: { target: '_blank', rel: 'noreferrer' },
});

interface ListProps {
  readonly job: string;
  readonly papers: readonly Paper[];
  readonly onTake?: (paper: Paper) => void;
}

const PAPER_WORDS: Readonly<Record<Paper['what'], string>> = {
  description: KINDS_WORDS.descriptionFile,
  manual: 'manual',
  drawing: 'drawing',
  other: 'paper',
};

interface Props {
  readonly id: string;
  readonly doc: PlanDoc;
  readonly kind: Kind;
}

/** Papers of a kind, with what adds one and takes one away. */
export function KindPapers({ id, doc, kind }: Props) {
  const edit = useEdit(id);
  const keep = useAct(acts.keepPaper, { job: id });
  const write = (papers: readonly Paper[], why: string) =>
    edit.mutate({ edits: editsOfPapers(doc, kind, papers), why });
  const attach = async () => {
    const file = await chooseFile('.pdf,.eds,.xml,.png,.jpg,.txt');
    if (!file) return;
    keep.mutate(file, {
      onSuccess: (paper) =>
        write(
          withPaper(kind.papers, paper, file.name, paperKindOf(file.name)),
          KINDS_WORDS.attachedTo({ name: file.name, name2: kind.name }),
        ),
    });
  };
  return (
    <View style={{ gap: 8 }}>
      <PaperList
        job={id}
        papers={kind.papers}
        onTake={(paper) =>
          write(
            kind.papers.filter((one) => one !== paper),
            KINDS_WORDS.tookFrom({ name: paper.name, name2: kind.name }),
          )
        }
      />
      <Refusals issues={issuesOf(keep.error ?? edit.error)} />
      <Button
        type="outline"
        title={KINDS_WORDS.attachAManualOrAnotherPaper}
        loading={keep.isPending || edit.isPending}
        onPress={() => void attach()}
      />
    </View>
  );
}

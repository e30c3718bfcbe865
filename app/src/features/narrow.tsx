import { useEffect, useMemo } from 'react';
import { NarrowBook } from '@ipsonomo/core/find';
import type { JobView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { STAGE_WORDS } from '@ipsonomo/language';
import { FIND_WORDS } from '@ipsonomo/language/screens/find';
import { Field, useDraft, Words } from '../parts';

/** A list of devices that is narrowed down by what is typed. */
export interface Narrowed {
  readonly wanted: string;
  readonly change: (wanted: string) => void;
  /** Undefined: nobody narrows, and all are shown. */
  readonly only: ReadonlySet<string> | undefined;
}

/**
 * @param place whose list it is: what was typed there stays while one goes elsewhere and back
 * @param first what the way here said
 */
export function useNarrowed(
  place: string,
  plan: Plan | undefined,
  view: JobView | undefined,
  first?: string,
): Narrowed {
  const [wanted, change] = useDraft(place);
  useEffect(() => {
    if (first !== undefined) change(first);
  }, [first, change]);
  const book = useMemo(() => plan && new NarrowBook(plan), [plan]);
  const only = useMemo(() => {
    if (wanted.trim() === '' || !view) return undefined;
    const stages = new Map(
      view.devices.flatMap(({ interfaces }) =>
        interfaces.map((at) => [at.id, STAGE_WORDS[at.stage]] as const),
      ),
    );
    return book?.narrow(wanted, (id) => stages.get(id) ?? '');
  }, [book, wanted, view]);
  return { wanted, change, only };
}

/** The field on top of the list, and how much of it is shown. */
export function NarrowField({
  narrowed: { wanted, change, only },
  shown,
  of,
}: {
  readonly narrowed: Narrowed;
  readonly shown: number;
  readonly of: number;
}) {
  return (
    <>
      <Field
        label={FIND_WORDS.narrowDown}
        value={wanted}
        onChange={change}
        placeholder={FIND_WORDS.narrowBy}
      />
      {only ? (
        <Words size="second" tone="ochre">
          {FIND_WORDS.shownOf({ shown, of })}
        </Words>
      ) : null}
    </>
  );
}

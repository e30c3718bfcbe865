import {
  queryOptions,
  useMutation,
  useQueryClient,
  type QueryClient,
  type UseMutationResult,
} from '@tanstack/react-query';
import {
  acts,
  isFile,
  keys,
  type AnswerOf,
  type AnyAct,
  type BodyOf,
  type Key,
  type ParamsOf,
  type QueryOf,
} from '@ipsonomo/contract';
import type { EditedView, FieldView } from '@ipsonomo/core/api';
import { ApiError, ask, isAway } from './http';
import { named } from './named';
import type { Outcome } from './outbox';
import { planRefused, takeEdited } from './plan-now';
import type { PlanNow } from './plan-state';
import { doOrKeep, showHeld } from './waiting';
import { putField } from './wire-news';

/** What is sent with an act: a file, a body, or nothing. */
type Sent<A extends AnyAct> = BodyOf<A> extends 'file' ? File : Maybe<BodyOf<A>>;

/** What has only parts that may be left out may be left out itself. */
type Maybe<B> = B extends undefined ? void : Record<never, never> extends B ? B | void : B;

/** An act whose place is known only when it comes to it. */
interface Placed<A extends AnyAct> {
  readonly params: ParamsOf<A>;
  readonly body?: Sent<A>;
}

/** An act under way, as a screen shows it. */
export type Acting<A extends AnyAct, V = Sent<A>> = UseMutationResult<AnswerOf<A>, Error, V>;

/** An act of the contract. Whatever it makes stale is read again. */
export function useAct<A extends AnyAct>(act: A, params: ParamsOf<A>): Acting<A, Sent<A>> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Sent<A>) => asked({ client, act, params, body }),
    onError: () => afterRefusal(client, act, params),
  });
}

/** The same where what it is done to is known only when it comes to it. */
export function useActOn<A extends AnyAct>(act: A): Acting<A, Placed<A>> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ params, body }: Placed<A>) => asked({ client, act, params, body }),
    onError: (_error, { params }) => afterRefusal(client, act, params),
  });
}

/** An act that is being done, with what it is done to. */
interface Doing<A extends AnyAct> {
  readonly client: QueryClient;
  readonly act: A;
  readonly params: ParamsOf<A>;
  readonly body: Sent<A> | undefined;
}

/** Done now, or kept until the server is there: what it changes of the plan is shown either way. */
async function asked<A extends AnyAct>(doing: Doing<A>): Promise<AnswerOf<A>> {
  const { client, act, params } = doing;
  await named(act);
  const outcome = act.mayWait ? await doneOrKept(doing) : await doneNow(doing);
  if (outcome.kind === 'refused')
    throw new ApiError(outcome.refused.issues, outcome.refused.conflicts);
  if (outcome.kind === 'waits') {
    const shown = showHeld(client, jobIn(params));
    return (act.answer === 'Edited' ? shown : undefined) as AnswerOf<A>;
  }
  const answer = outcome.answer as AnswerOf<A>;
  await afterAct(client, act, params, answer);
  return answer;
}

function doneOrKept<A extends AnyAct>({ client, act, params, body }: Doing<A>): Promise<Outcome> {
  const known = client.getQueryData<PlanNow>(keys.plan(jobIn(params)));
  return doOrKeep(act, params as Readonly<Record<string, string>>, body, known);
}

/** What can be done instead is said. */
const WIRE_AWAY = new ApiError([{ code: 'server.awayForWire', where: '' }]);

async function doneNow<A extends AnyAct>({ act, params, body }: Doing<A>): Promise<Outcome> {
  const query = { name: (body as File | undefined)?.name } as QueryOf<A>;
  const along = isFile(act.body) && act.query ? { body, query } : { body };
  const answer = await ask(act, params, along).catch((error: unknown) => {
    throw act.right === 'send' && isAway(error) ? WIRE_AWAY : error;
  });
  return { kind: 'done', answer };
}

/** What a page knows is brought in step with what was answered. */
function afterAct<A extends AnyAct>(
  client: QueryClient,
  act: A,
  params: ParamsOf<A>,
  answer: AnswerOf<A>,
): Promise<unknown> {
  if (act.answer === 'Field') putField(client, answer as FieldView);
  if (act.answer === 'Edited') takeEdited(client, jobIn(params), answer as EditedView);
  const stale = (act.stale as ((of: ParamsOf<A>) => readonly Key[]) | undefined)?.(params) ?? [];
  return Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey })));
}

/** Refused because somebody else was there first: this page has to see what they did. */
const afterRefusal = <A extends AnyAct>(client: QueryClient, act: A, params: ParamsOf<A>) =>
  act.answer === 'Edited' ? planRefused(client, jobIn(params)) : undefined;

const jobIn = (params: object): string => ('job' in params ? String(params.job) : '');

/** A reading of the contract, kept under its key. */
export const reading = <A extends AnyAct>(act: A, params: ParamsOf<A>) =>
  queryOptions<AnswerOf<A>>({
    queryKey: (act.key as ((of: ParamsOf<A>) => Key) | undefined)?.(params) ?? [act.path, params],
    queryFn: () => ask(act, params),
  });

/** Changes of a plan, with why. */
export const useEdit = (job: string) => useAct(acts.edit, { job });

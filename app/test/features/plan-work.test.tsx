import { fireEvent, waitFor } from '@testing-library/react';
import { CodesScreen } from '../../src/features/prove/codes/CodesScreen';
import { KindsScreen } from '../../src/features/kinds/KindsScreen';
import { CopyScreen } from '../../src/features/plan/copy/CopyScreen';
import { SubnetScreen } from '../../src/features/plan/subnet/SubnetScreen';
import { deviceInfo, jobView, show, type Call } from '../world';

// Work on a plan by hand: each press becomes edits with the reason that stands in the revisions.

const two = jobView([
  deviceInfo({ id: 'd1', title: 'Drive 1', name: 'fh2-drive-1' }, { id: 'a1' }),
  deviceInfo(
    { id: 'd2', title: 'Drive 2', name: 'fh2-drive-2', position: '3' },
    { id: 'a2', address: '172.22.40.86' },
  ),
]);

interface Sent {
  readonly why: string;
  readonly edits: readonly (Readonly<Record<string, unknown>> & {
    readonly thing?: Readonly<Record<string, unknown>>;
  })[];
}

const sent = (calls: readonly Call[]): Sent => {
  expect(calls).toHaveLength(1);
  expect(calls[0]?.path).toBe('/api/jobs/job/edits');
  return calls[0]?.body as Sent;
};

describe('one subnet, address by address', () => {
  const open = async () => {
    const screen = show(<SubnetScreen job="job" subnet="hall" />, { job: two });
    await screen.findByText('2 given, 252 free, gateway 172.22.40.1');
    return screen;
  };

  test('a free address is given to a device of the subnet, found by a part of its name', async () => {
    const { getByLabelText, getByText, queryByText, calls } = await open();
    fireEvent.click(getByLabelText(/^172\.22\.40\.90\b/));
    fireEvent.click(getByText('Give it to …'));
    fireEvent.change(getByLabelText('To which device of this subnet?'), {
      target: { value: '-2' },
    });
    expect(queryByText('Drive 1, now 172.22.40.85')).toBeNull();
    fireEvent.click(getByText('Drive 2, now 172.22.40.86'));
    await waitFor(() => expect(calls).toHaveLength(1));
    expect(sent(calls)).toMatchObject({
      why: 'gave Drive 2 172.22.40.90',
      edits: [{ op: 'set', id: 'a2', field: 'address', from: '172.22.40.86', to: '172.22.40.90' }],
    });
  });

  test('one that others have is held, with whose it is', async () => {
    const { getByLabelText, getByText, calls } = await open();
    fireEvent.click(getByLabelText(/^172\.22\.40\.90\b/));
    fireEvent.click(getByText('Held by others …'));
    fireEvent.click(getByText('Hold it'));
    expect(calls).toEqual([]);
    fireEvent.change(getByLabelText('By whom, and what for?'), {
      target: { value: 'IT, a printer' },
    });
    fireEvent.click(getByText('Hold it'));
    await waitFor(() => expect(calls).toHaveLength(1));
    const [edit] = sent(calls).edits;
    expect(edit).toMatchObject({ type: 'subnet', id: 'hall', field: 'held' });
    expect(JSON.stringify(edit?.['to'])).toContain('IT, a printer');
  });

  test('a given one opens who has it', async () => {
    const { getByLabelText, getByText } = await open();
    fireEvent.click(getByLabelText(/^172\.22\.40\.85\b/));
    expect(getByText('Open Drive 1')).toBeTruthy();
  });

  test('another network renumbers all that is in it, seen before it is saved', async () => {
    const { getByLabelText, getByText, calls } = await open();
    fireEvent.click(getByText('Change this subnet'));
    const network = getByLabelText('Network with prefix length');
    fireEvent.change(network, { target: { value: '10.20.0.0/33' } });
    expect(getByText(/\/33 is above 32/)).toBeTruthy();
    fireEvent.change(network, { target: { value: '10.20.0.0/24' } });
    expect(getByText(/Drive 1: 172\.22\.40\.85 → 10\.20\.0\.85/)).toBeTruthy();
    fireEvent.click(getByText('Save'));
    await waitFor(() => expect(calls).toHaveLength(1));
    const changed = sent(calls).edits.filter(({ field }) => field === 'address');
    expect(changed.map(({ to }) => to)).toEqual(['10.20.0.85', '10.20.0.86']);
  });

  test('one that is no longer in the plan says so', async () => {
    const { findByText } = show(<SubnetScreen job="job" subnet="gone" />, { job: two });
    expect(await findByText('This subnet is no longer in the plan.')).toBeTruthy();
  });
});

describe('a machine copied', () => {
  const open = async () => {
    const screen = show(<CopyScreen job="job" />, { job: two });
    fireEvent.click(await screen.findByRole('checkbox', { name: 'Filter hall' }));
    return screen;
  };

  test('twice, a block of addresses further each time, with names of its own', async () => {
    const { getByLabelText, getByText, calls } = await open();
    expect(getByText('2 devices in them')).toBeTruthy();
    fireEvent.change(getByLabelText('How many copies'), { target: { value: '2' } });
    fireEvent.change(getByLabelText('In names, this …'), { target: { value: 'FH2' } });
    const becomes = getByLabelText('… becomes ({n} is the number)');
    fireEvent.change(becomes, { target: { value: 'FH{n}' } });
    fireEvent.click(getByText('Add 4 devices'));
    await waitFor(() => expect(calls).toHaveLength(1));
    const { why, edits } = sent(calls);
    expect(why).toBe('copied 2 devices 2 times');
    const of = (type: string): readonly Readonly<Record<string, unknown>>[] =>
      edits.flatMap((one) => (one['type'] === type && one.thing ? [one.thing] : []));
    expect(of('subnet').map((one) => one['prefix'])).toEqual(['172.22.41.0/24', '172.22.42.0/24']);
    expect(of('interface').map((one) => one['address'])).toEqual([
      ...['172.22.41.85', '172.22.41.86', '172.22.42.85', '172.22.42.86'],
    ]);
    const names = of('device').map((one) => one['name']);
    expect(new Set(names).size).toBe(4);
  });

  test.each(['0', '201', 'x'])('%s copies are none', async (count) => {
    const { getByLabelText, getByText, calls } = await open();
    fireEvent.change(getByLabelText('How many copies'), { target: { value: count } });
    expect(getByText('Choose what is copied.')).toBeTruthy();
    fireEvent.click(getByText('Copy'));
    expect(calls).toEqual([]);
  });

  test('so far that there is no such address is refused in words', async () => {
    const { getByLabelText, findAllByText } = await open();
    const offset = getByLabelText('Every copy so many addresses further');
    fireEvent.change(offset, { target: { value: '999999999' } });
    fireEvent.change(getByLabelText('How many copies'), { target: { value: '9' } });
    expect((await findAllByText(/999999999|beyond|outside|no such/i)).length).toBeGreaterThan(0);
  });
});

test('the shelf of kinds: found by a part of a name, counted in the plan, opened by a press', async () => {
  const { findByText, getByLabelText, getByText, queryByText } = show(<KindsScreen job="job" />, {
    job: two,
  });
  expect(await findByText(/BootP.* · 2 devices$/)).toBeTruthy();
  fireEvent.change(getByLabelText('A part of maker, name or order number'), {
    target: { value: 'nobody makes this' },
  });
  expect(getByText('No kind of the shelf is called so.')).toBeTruthy();
  expect(queryByText(/2 devices$/)).toBeNull();
});

describe('an error code', () => {
  const read = async (text: string) => {
    const screen = show(<CodesScreen job="job" />, { job: two });
    fireEvent.change(await screen.findByLabelText('The code'), { target: { value: text } });
    return screen;
  };

  test.each(['16#0127', '0x0127', '295'])('%s is one code, whoever writes it', async (text) => {
    const { getAllByRole } = await read(text);
    const said = getAllByRole('heading', { level: 2 }).map((one) => one.textContent);
    expect(said.length).toBeGreaterThan(0);
    expect(said[0]).toMatch(/number of bytes/);
  });

  test('what is no number says how one is written', async () => {
    expect((await read('abc!')).getByText('There is no number in it')).toBeTruthy();
  });
});

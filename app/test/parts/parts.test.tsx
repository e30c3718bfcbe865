import { act, fireEvent } from '@testing-library/react';
import { toMac } from '@ipsonomo/core/net';
import { Button } from '@rneui/themed';
import { useState } from 'react';
import {
  AddressText,
  Beside,
  Choice,
  Field,
  LabelCheck,
  LinkLine,
  Pick,
  ReasonForm,
  StageNotches,
  Toggle,
  Words,
  partsOfAddress,
} from '../../src/parts';
import { DAY, NIGHT } from '../../src/theme';
import { interfaceView, show } from '../world';

// What the subnet fixes is light, what is this device's is heavy.
test.each([
  [24, '172.22.40.', '86'],
  [16, '172.22.', '40.86'],
  [20, '172.22.', '40.86'],
  [32, '172.22.40.', '86'],
  [0, '', '172.22.40.86'],
])('an address in a /%i', (length, light, heavy) => {
  const { getByText } = show(<AddressText address="172.22.40.86" length={length} still />);
  const weightOf = (text: string) => getComputedStyle(getByText(text)).fontWeight;
  if (light) expect(weightOf(light)).toBe('400');
  expect(weightOf(heavy)).toBe('700');
});

test('an address is copied by a tap, and says so', async () => {
  const written: string[] = [];
  const clipboard = { writeText: (text: string) => Promise.resolve(void written.push(text)) };
  Object.defineProperty(navigator, 'clipboard', { configurable: true, value: clipboard });
  const { findByText, getByRole } = show(<AddressText address="172.22.40.86" length={24} />);
  fireEvent.click(getByRole('button'));
  expect(await findByText('copied')).toBeTruthy();
  expect(written).toEqual(['172.22.40.86']);
});

test('over plain HTTP, where a browser has no clipboard, it is copied in the old way, or told', async () => {
  Reflect.deleteProperty(navigator, 'clipboard');
  const { findByText, getByRole } = show(<AddressText address="172.22.40.86" length={24} />);
  fireEvent.click(getByRole('button'));
  expect(await findByText('not copied: hold it to mark it')).toBeTruthy();
});

test('the label check stands letter under letter; nothing typed yet leaves the places open', () => {
  const heard = toMac(0x024c7a1d8003);
  const { getByLabelText, rerender } = show(<LabelCheck label={undefined} heard={heard} />);
  expect(getByLabelText('· · · · · · · · · · · ·')).toBeTruthy();
  expect(getByLabelText('0 2 4 C 7 A 1 D 8 0 0 3')).toBeTruthy();
  rerender(<></>);
});

test('a contradicted stage is told in words as well as drawn', () => {
  const { notches } = interfaceView();
  const broken = notches.map((notch) =>
    notch.stage === 'proven' ? { ...notch, state: 'broken' as const } : notch,
  );
  const { getByLabelText } = show(<StageNotches notches={broken} />);
  expect(getByLabelText('stage: planned, proven: contradicted')).toBeTruthy();
});

test('"Fall silent" is there while anything may be sent, and only then', () => {
  const silence = jest.fn();
  const line = (isSending: boolean) => (
    <LinkLine
      {...{ wire: 'Practice site', state: 'silent', trouble: false }}
      isSending={isSending}
      onPress={() => undefined}
      onFallSilent={silence}
    />
  );
  expect(show(line(false)).queryByText('Fall silent')).toBeNull();
  fireEvent.click(show(line(true)).getByText('Fall silent'));
  expect(silence).toHaveBeenCalledTimes(1);
});

/** Relative luminance and contrast: WCAG 2.1 §1.4.3. */
function contrast(a: string, b: string): number {
  const luminance = (colour: string) => {
    const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
      const part = parseInt(colour.slice(at, at + 2), 16) / 255;
      return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

test.each([
  ['day', DAY],
  ['night', NIGHT],
])('%s: words at least 4.5:1, what is heavy in an address at least 7:1', (_name, colours) => {
  const { ground, surface, ink, second, plum, onPlum } = colours;
  for (const under of [ground, surface]) {
    expect(contrast(ink, under)).toBeGreaterThanOrEqual(7);
    expect(contrast(second, under)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(plum, under)).toBeGreaterThanOrEqual(4.5);
  }
  expect(contrast(onPlum, plum)).toBeGreaterThanOrEqual(4.5);
  for (const tone of ['ochre', 'brick', 'moss'] as const) {
    expect(contrast(colours[tone], ground)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(ink, colours[`${tone}Ground`])).toBeGreaterThanOrEqual(7);
  }
});

describe('what is half typed', () => {
  const LABEL = 'How do you know?';
  const form = (
    about: string,
    onSay = (_reason: string): Promise<unknown> => Promise.resolve(),
  ) => {
    const words = { label: LABEL, title: 'Say it', leave: 'Leave it' };
    const screen = show(
      <ReasonForm {...{ about, ...words, isBusy: false, onSay, onLeave: () => undefined }} />,
    );
    const field = () => screen.getByLabelText(LABEL) as HTMLInputElement;
    const type = (value: string) => fireEvent.change(field(), { target: { value } });
    return { ...screen, field, type };
  };
  const left = (about: string) => {
    const { field, unmount } = form(about);
    const { value } = field();
    unmount();
    return value;
  };

  test('is there again where its page is drawn anew, and for nobody else', () => {
    const { type, unmount } = form('one');
    type('I stood bef');
    unmount();
    expect([left('one'), left('other')]).toEqual(['I stood bef', '']);
  });

  test.each([
    ['said', 'Say it', ''],
    ['left', 'Leave it', ''],
  ])('is forgotten once it is %s, though its form is gone by then', async (_how, title, after) => {
    const { type, getByText, unmount } = form('one');
    type('I stood before it');
    fireEvent.click(getByText(title));
    unmount();
    await Promise.resolve();
    expect(left('one')).toBe(after);
  });

  test('stays where it was refused', async () => {
    const { type, getByText, field, unmount } = form('one', () =>
      Promise.reject(new Error('refused')),
    );
    type('I stood before it');
    fireEvent.click(getByText('Say it'));
    await Promise.resolve();
    expect(field().value).toBe('I stood before it');
    unmount();
    expect(left('one')).toBe('I stood before it');
  });

  test('stands in the field also in a browser that keeps nothing', () => {
    const none = () => {
      throw new Error('denied');
    };
    const spies = (['getItem', 'setItem', 'removeItem'] as const).map((name) =>
      jest.spyOn(Storage.prototype, name).mockImplementation(none),
    );
    const { type, field } = form('one');
    type('typed');
    expect(field().value).toBe('typed');
    spies.forEach((spy) => spy.mockRestore());
  });
});

test('what stands beside a list stays as it is when the width changes', () => {
  const resize = (width: number) =>
    act(() => {
      Object.defineProperty(document.documentElement, 'clientWidth', {
        configurable: true,
        value: width,
      });
      window.dispatchEvent(new Event('resize'));
    });
  function Open() {
    const [isOpen, setOpen] = useState(false);
    return <Button title={isOpen ? 'open' : 'shut'} onPress={() => setOpen(true)} />;
  }
  resize(390);
  const { getByText, queryByText } = show(
    <Beside main="one" list={<Words>the list</Words>}>
      <Open />
    </Beside>,
  );
  expect(queryByText('the list')).toBeNull();
  fireEvent.click(getByText('shut'));
  resize(1280);
  expect([getByText('the list'), getByText('open')]).toHaveLength(2);
  resize(390);
  expect([queryByText('the list'), getByText('open')]).toMatchObject([null, {}]);
});

describe('keys', () => {
  const press = (key: string) =>
    fireEvent.keyDown(document.activeElement ?? document.body, { key });

  test('of choices one is reached, arrows go round and choose, Space chooses', () => {
    const said: string[] = [];
    const options = ['a', 'b', 'c'].map((value) => ({ value, title: value.toUpperCase() }));
    const { getAllByRole } = show(
      <Choice label="Which?" options={options} value="b" onChange={(one) => said.push(one)} />,
    );
    const radios = getAllByRole('radio');
    expect(radios.map((one) => one.tabIndex)).toEqual([-1, 0, -1]);
    radios[1]?.focus();
    press('ArrowDown');
    press('ArrowRight');
    press('ArrowUp');
    press(' ');
    expect(said).toEqual(['c', 'a', 'c', 'c']);
    expect(document.activeElement).toBe(radios[2]);
    press('Tab');
    expect(said).toHaveLength(4);
  });

  test('a check box goes on and off by Space', () => {
    let times = 0;
    const { getByRole } = show(
      <Toggle title="a whole /24" isOn={false} onPress={() => (times += 1)} />,
    );
    getByRole('checkbox').focus();
    press(' ');
    expect(times).toBe(1);
  });

  test.each([
    ['few', 4],
    ['many, found by a part of the name', 30],
  ])('one of %s: opened, gone through, chosen and left by keys', async (_which, count) => {
    const said: number[] = [];
    const options = Array.from({ length: count }, (_, value) => ({
      value,
      title: `number ${value}`,
    }));
    const { findByRole, getAllByRole, queryAllByRole } = show(
      <Pick label="Which?" options={options} value={1} onChange={(one) => said.push(one)} />,
    );
    const box = await findByRole('combobox');
    box.focus();
    press('ArrowDown');
    expect(box.getAttribute('aria-expanded')).toBe('true');
    expect(getAllByRole('option')).toHaveLength(count);
    press('End');
    expect(box.getAttribute('aria-activedescendant')).toBe(getAllByRole('option').at(-1)?.id);
    press('Enter');
    expect(said).toEqual([count - 1]);
    press('ArrowDown');
    press('Escape');
    expect([queryAllByRole('option').length, said.length]).toEqual([0, 1]);
    expect(document.activeElement).toBe(box);
  });

  test('of many a part of the name leaves those that have it', async () => {
    const said: number[] = [];
    const options = Array.from({ length: 30 }, (_, value) => ({ value, title: `number ${value}` }));
    const { findByRole, getAllByRole } = show(
      <Pick label="Which?" options={options} value={1} onChange={(one) => said.push(one)} />,
    );
    const box = (await findByRole('combobox')) as HTMLInputElement;
    expect(box.value).toBe('number 1');
    fireEvent.click(box);
    fireEvent.change(box, { target: { value: 'number 2' } });
    expect(getAllByRole('option').map((one) => one.textContent)).toContain('number 27');
    expect(getAllByRole('option')).toHaveLength(11);
    fireEvent.click(getAllByRole('option')[1] as HTMLElement);
    expect(said).toEqual([20]);
  });
});

test('what is wrong with a field is tied to it', () => {
  const issue = { code: 'list.empty', where: 'list.csv' } as const;
  const { getByLabelText, getByText } = show(
    <Field label="Network" value="10" onChange={() => undefined} issue={issue} />,
  );
  const told = getByText(/list.csv/);
  const field = getByLabelText('Network');
  expect(field.getAttribute('aria-describedby')).toBe(told.id);
  expect(field.getAttribute('aria-invalid')).toBe('true');
});

test('the first heading names the page; of a list with one of it beside, the one does', () => {
  show(
    <Beside main="one" list={<Words heading={1}>28 calls left</Words>}>
      <Words heading={1}>Intake pump</Words>
    </Beside>,
  );
  expect(document.title).toBe('Intake pump · Ipsonomo');
});

test.each([
  ['172.22.40.86', 24, '172.22.40.', '86'],
  ['172.22.40.86', 16, '172.22.', '40.86'],
  ['172.22.40.86', 22, '172.22.', '40.86'],
  ['172.22.40.86', 30, '172.22.40.', '86'],
  // Of a stranger nobody knows which part is its network's.
  ['172.22.40.86', undefined, '', '172.22.40.86'],
])('%s in a subnet of /%s: what it fixes is light', (address, length, light, heavy) => {
  expect(partsOfAddress(address, length)).toEqual([light, heavy]);
});

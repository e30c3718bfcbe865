import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import { moveBy } from './cursor';
import type { SheetState } from './use-sheet';

interface Acts {
  readonly undo: () => void;
  readonly redo: () => void;
  readonly find: () => void;
}

/** Keys, copies and pastes of the sheet, while it (and no field outside) has the focus. */
export function useKeys(body: RefObject<HTMLElement | null>, sheet: SheetState, acts: Acts): void {
  const now = useRef({ sheet, acts });
  useLayoutEffect(() => {
    now.current = { sheet, acts };
  });
  useEffect(() => {
    const element = body.current;
    if (!element) return;
    // Tab goes through the cells; after Escape it goes on to what stands behind the sheet.
    let isLeaving = false;
    const onKey = (event: KeyboardEvent) => {
      const { sheet: state, acts: does } = now.current;
      if (state.editing || event.defaultPrevented) return;
      if (event.key === 'Tab' && isLeaving) return;
      if (event.key !== 'Shift') isLeaving = event.key === 'Escape';
      // At once: the next letter has to find the field that this one opens.
      let isOurs = false;
      flushSync(() => (isOurs = press(event, state, does)));
      if (isOurs) event.preventDefault();
    };
    const onCopy = (event: ClipboardEvent) => {
      if (now.current.sheet.editing) return;
      event.clipboardData?.setData('text/plain', now.current.sheet.copy());
      event.preventDefault();
    };
    const onPaste = (event: ClipboardEvent) => {
      if (now.current.sheet.editing) return;
      now.current.sheet.paste(event.clipboardData?.getData('text/plain') ?? '');
      event.preventDefault();
    };
    element.addEventListener('keydown', onKey);
    element.addEventListener('copy', onCopy);
    element.addEventListener('paste', onPaste);
    return () => {
      element.removeEventListener('keydown', onKey);
      element.removeEventListener('copy', onCopy);
      element.removeEventListener('paste', onPaste);
    };
  }, [body]);
}

/** What a key does; false where the sheet has no use for it. */
function press(event: KeyboardEvent, sheet: SheetState, acts: Acts): boolean {
  const far = event.ctrlKey || event.metaKey;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const command = far ? COMMANDS[event.shiftKey ? `shift+${key}` : key] : undefined;
  if (command) {
    command(sheet, acts);
    return true;
  }
  const moved = moveBy(sheet.cursor, { key, shift: event.shiftKey, far }, sheet.size);
  if (moved) {
    sheet.setCursor(moved);
    return true;
  }
  if (far || event.altKey) return false;
  if (key === 'Enter' || key === 'F2') sheet.edit();
  else if (key === 'Delete' || key === 'Backspace') sheet.clear();
  else if (event.key.length === 1) sheet.edit(event.key);
  else return false;
  return true;
}

const COMMANDS: Readonly<Record<string, (sheet: SheetState, acts: Acts) => void>> = {
  d: (sheet) => sheet.fill(),
  'shift+d': (sheet) => sheet.countOn(),
  Delete: (sheet) => sheet.takeOut(),
  z: (_sheet, acts) => acts.undo(),
  y: (_sheet, acts) => acts.redo(),
  'shift+z': (_sheet, acts) => acts.redo(),
  f: (_sheet, acts) => acts.find(),
};

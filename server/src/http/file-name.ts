import { visibleText } from '@ipsonomo/core/names';

const MOST_NAME = 200;

/** What a file that somebody sent is called, as far as it can be shown. */
export const fileNameOf = ({ name }: { readonly name?: string }): string =>
  visibleText(name ?? 'file').slice(0, MOST_NAME);

import { TOUCH, useColours } from '../theme';
import { Words } from './Words';

// How one of many looks while it is shut; also while what opens it is not there yet.

export interface PickOption<T> {
  readonly value: T;
  readonly title: string;
  readonly detail?: string;
}

export interface PickProps<T> {
  readonly label: string;
  readonly options: readonly PickOption<T>[];
  readonly value: T;
  readonly onChange: (value: T) => void;
}

export const PickLabel = ({ children }: { readonly children: string }) => (
  <Words size="second" tone="second">
    {children}
  </Words>
);

export function usePickBox(isOpen: boolean) {
  const colours = useColours();
  return {
    minHeight: TOUCH,
    justifyContent: 'center',
    paddingHorizontal: 12,
    borderWidth: 1.5,
    borderColor: isOpen ? colours.plum : colours.second,
    borderRadius: 8,
    backgroundColor: colours.surface,
  } as const;
}

import { Link, type Href } from 'expo-router';
import { Pressable, type PressableProps } from 'react-native';

interface Props extends Omit<PressableProps, 'onPress' | 'role' | 'accessibilityRole'> {
  /** A page of this application, as its path. */
  readonly href: string;
}

/** Leads to a page: a link as the browser knows one, with keys, an address to copy, and another tab where it is wished. */
export function LinkTo({ href, ...rest }: Props) {
  return (
    <Link href={href as Href} asChild>
      <Pressable {...rest} />
    </Link>
  );
}

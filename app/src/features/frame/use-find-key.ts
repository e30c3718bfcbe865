import { useRouter } from 'expo-router';
import { useEffect } from 'react';

const TYPED_INTO = ['input', 'textarea', 'select', '[contenteditable=true]', '[role=grid]'].join(
  ',',
);

/** `/`, or Ctrl-K also while something is typed, opens the field that finds. */
export function useFindKey(job: string): void {
  const router = useRouter();
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const isTyped = (event.target as Element | null)?.closest?.(TYPED_INTO) != null;
      const isSlash = event.key === '/' && !isTyped && !event.ctrlKey && !event.metaKey;
      const isCtrlK = event.key === 'k' && (event.ctrlKey || event.metaKey);
      if (!isSlash && !isCtrlK) return;
      event.preventDefault();
      router.navigate(`/job/${job}/find`);
    };
    document.addEventListener('keydown', pressed);
    return () => document.removeEventListener('keydown', pressed);
  }, [job, router]);
}

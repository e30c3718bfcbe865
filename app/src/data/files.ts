import { Linking, Platform } from 'react-native';

/** A file of the server, saved by the browser. */
export function download(path: string): void {
  if (Platform.OS !== 'web') {
    void Linking.openURL(path);
    return;
  }
  const link = document.createElement('a');
  link.href = path;
  link.download = '';
  link.click();
}

/** A text that was made here, saved by the browser. */
export function saveText(name: string, type: string, text: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/**
 * Lets a person choose a file.
 * @param accept `.json,.csv`
 * @param isCamera a phone opens its camera, and not its files
 */
export function chooseFile(accept: string, isCamera = false): Promise<File | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    if (isCamera) input.setAttribute('capture', 'environment');
    input.addEventListener('change', () => resolve(input.files?.[0]));
    input.addEventListener('cancel', () => resolve(undefined));
    input.click();
  });
}

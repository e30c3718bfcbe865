import type { UnreadWhy } from '@ipsonomo/core/describe';

/** What is wrong with a place of a description file, as it stands behind the text of the place. */
export function unreadWords(why: UnreadWhy): string {
  switch (why.code) {
    case 'no-entry':
      return 'belongs to no entry';
    case 'no-end':
      return 'has no end (;)';
    case 'no-section':
      return 'stands in no section';
    case 'twice':
      return 'stands twice; the first counts';
    case 'section-twice':
      return 'comes twice; what is new in it is added';
    case 'names-nothing':
      return 'names nothing in this file';
    case 'names-no-text':
      return 'names no text of this file';
    case 'no-id':
      return 'has no ID';
    case 'no-size':
      return 'is of no known size';
    case 'doctype':
      return 'is passed over: nothing is fetched and no entity is put in';
    case 'no-number':
      return `is no number of 0 to ${why.most}`;
    case 'no-slot':
      return `is no slot from 0 to ${why.most} and no range of them`;
    case 'too-far':
      return `names something that names another, ${why.most} times`;
    case 'broken-xml':
      return `broken XML: ${why.detail}`;
  }
}

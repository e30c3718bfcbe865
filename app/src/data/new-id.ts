import { v4 } from 'uuid';

/** An id for something new (RFC 9562 §5.4), also where the browser has none to give: on a page over plain HTTP. */
export const newId = (): string => v4();

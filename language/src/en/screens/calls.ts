import { messages } from '../../message';

export const CALLS_WORDS = messages({
  boxesAtTheDesk: 'Boxes at the desk',
});

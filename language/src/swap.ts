// The steps of a swap, for a page and for paper.
import * as swap from './en/swap-steps';
import { said } from './said';

export const swapStepWords = said(swap.swapStepWords);

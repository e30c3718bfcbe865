import { besideCode as beside } from './en/beside-code';
import * as codes from './en/codes';
import { said } from './said';

export const besideCode = said(beside);
export const codeWords = said(codes.codeWords);

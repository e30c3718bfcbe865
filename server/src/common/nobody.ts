/** Who acts without having said a name. */
export const NOBODY = 'nobody named';

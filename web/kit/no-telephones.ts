/** Stands in for a library no field of ours needs: nothing is a telephone number. */
export const parsePhoneNumber = (): null => null;
export default parsePhoneNumber;

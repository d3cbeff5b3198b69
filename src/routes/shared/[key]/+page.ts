/** A page to read: nothing of the records is sent along but what stands on it. */
export const csr = false;

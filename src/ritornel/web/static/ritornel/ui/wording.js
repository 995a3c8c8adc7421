// Text with numbers, as core/wording.py writes it.

/**
 * A number with its noun: "1 slide", "0 slides", "2 entries" (where the plural is given).
 * @param {number} count
 * @param {string} noun
 * @param {string} [plural]
 */
export const countWords = (count, noun, plural = `${noun}s`) => `${count} ${count === 1 ? noun : plural}`;

/** The id of the practice microphone, which speaks by itself, and of the practice camera, which moves. */
export const PRACTICE = "practice";

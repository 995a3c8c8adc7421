/** The id of the microphone and the camera that every machine has: one speaks by itself, the other moves. */
export const PRACTICE = "practice";

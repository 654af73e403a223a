/** A browser's storage of its own for each test file, in place of idb-keyval. */
const kept = new Map<string, unknown>();
export const createStore = () => 'memory';
export const get = async (key: string) => kept.get(key);
export const set = async (key: string, value: unknown) => void kept.set(key, value);
export const del = async (key: string) => void kept.delete(key);
export const entries = async () => [...kept];

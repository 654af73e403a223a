import { steadyTime, type TimeTie } from '@unto/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { onServerTime } from '../api/client';

/** The server's time, once a second, by the browser's own counter: a changed device clock or time zone moves no clock. */
export const useNow = defineStore('now', () => {
  const now = ref(Date.now());
  let tie: TimeTie = { serverMs: Date.now(), monotonicMs: performance.now() };
  let heard = false;

  function start(): void {
    onServerTime((server) => {
      tie = { serverMs: Date.parse(server), monotonicMs: performance.now() };
      // What the device's clock said before the first answer counts for nothing.
      if (!heard) now.value = tie.serverMs;
      heard = true;
    });
    setInterval(() => {
      now.value = steadyTime(tie, performance.now(), now.value);
    }, 1000);
  }

  return { now, start };
});

import { defineStore } from 'pinia';
import { ref } from 'vue';
import { onServerTime } from '../api/client';

/** The server's time, once a second: clocks follow the server, whatever this device's clock says. */
export const useNow = defineStore('now', () => {
  const offsetMs = ref(0);
  const now = ref(Date.now());

  function start(): void {
    onServerTime((server) => {
      offsetMs.value = Date.parse(server) - Date.now();
    });
    setInterval(() => {
      now.value = Date.now() + offsetMs.value;
    }, 1000);
  }

  return { now, start };
});

import type { Point2 } from '@unto/core';
import type { Ref } from 'vue';

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Marks on a drawing that are dragged, or moved by the arrow keys (ten times as far with shift) once focused. */
export function useHandles<K>(
  stage: Ref<SVGSVGElement | null>,
  at: (handle: K) => Point2,
  size: () => { readonly width: number; readonly height: number },
  moved: (handle: K, to: Point2) => void,
) {
  function move(handle: K, to: Point2): void {
    const { width, height } = size();
    const within = (value: number, most: number) => Math.min(most, Math.max(0, value));
    moved(handle, { x: within(to.x, width), y: within(to.y, height) });
  }
  function dragged(handle: K, event: PointerEvent): void {
    if (!(event.buttons & 1)) return;
    move(handle, new DOMPoint(event.clientX, event.clientY).matrixTransform(stage.value!.getScreenCTM()!.inverse()));
  }
  function stepped(handle: K, event: KeyboardEvent): void {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const by = event.shiftKey ? 10 : 1;
    const { x, y } = at(handle);
    move(handle, { x: x + by * step[0], y: y + by * step[1] });
  }
  const grab = (event: PointerEvent) => (event.currentTarget as Element).setPointerCapture(event.pointerId);
  return { dragged, stepped, grab };
}

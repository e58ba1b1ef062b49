/** What is pressed. */
const PRESSED = 'button, a[href], summary';

/** So far (px) a pointer may slip while it presses; beyond it, it is moved away on purpose. */
const SLIPS = 8;

/**
 * Has a press count for what it began on, though that moves away below the pointer meanwhile: leaving a field writes it
 * anew and may take a hint away, and what stands below moves up. Whoever slides off it before letting go has not pressed
 * it, as ever. By the pointer capture of Pointer Events 3 (4.1.3, 10.2): the click goes to who captured the pointer.
 */
export function holdPresses(page: Document): void {
  page.addEventListener(
    'pointerdown',
    (event) => {
      const { target, isTrusted, pointerId, pointerType, button, clientX, clientY } = event;
      const pressed = target instanceof Element ? target.closest(PRESSED) : null;
      // What a script makes up has no pointer that could be captured.
      if (!pressed || !isTrusted || pointerType !== 'mouse' || button !== 0) return;
      pressed.setPointerCapture(pointerId);
      const moved = (now: PointerEvent): void => {
        if (Math.hypot(now.clientX - clientX, now.clientY - clientY) <= SLIPS) return;
        if (pressed.hasPointerCapture(pointerId)) pressed.releasePointerCapture(pointerId);
        page.removeEventListener('pointermove', moved, true);
      };
      page.addEventListener('pointermove', moved, true);
      pressed.addEventListener('lostpointercapture', () => page.removeEventListener('pointermove', moved, true), {
        once: true,
      });
    },
    true,
  );
}

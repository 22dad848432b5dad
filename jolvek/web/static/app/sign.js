/* A field to sign on by pointer; its strokes go into the entry beside it. Without it one types. */
{
  const FIELD = {
    width: 600,
    height: 200,
    most: 19000
  };

  const strokesOf = (pad) => pad.querySelector('input[name=signature]');

  const redraw = (pad) => {
    const pen = pad.querySelector('canvas').getContext('2d');
    pen.clearRect(0, 0, FIELD.width, FIELD.height);
    pen.lineWidth = 3;
    pen.lineCap = 'round';
    pen.strokeStyle = getComputedStyle(pad).color;
    for (const stroke of strokesOf(pad).value.split(';').filter(Boolean)) {
      pen.beginPath();
      stroke.split(' ').forEach((point, i) => {
        const [x, y] = point.split(',').map(Number);
        if (i) pen.lineTo(x, y);
        else pen.moveTo(x, y);
      });
      pen.stroke();
    }
  };

  const pointOf = (canvas, event) => {
    const box = canvas.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) / box.width) * FIELD.width);
    const y = Math.round(((event.clientY - box.top) / box.height) * FIELD.height);
    return `${Math.min(Math.max(x, 0), 600)},${Math.min(Math.max(y, 0), 200)}`;
  };

  document.addEventListener('pointerdown', (event) => {
    const canvas = event.target.closest('[data-sign] canvas');
    if (!canvas) return;
    const pad = canvas.closest('[data-sign]');
    canvas.setPointerCapture(event.pointerId);
    const kept = strokesOf(pad).value;
    if (kept.length > FIELD.most) return;
    strokesOf(pad).value = (kept ? `${kept};` : '') + pointOf(canvas, event);
  });

  document.addEventListener('pointermove', (event) => {
    const canvas = event.target.closest('[data-sign] canvas');
    if (!canvas || !canvas.hasPointerCapture(event.pointerId)) return;
    const pad = canvas.closest('[data-sign]');
    if (strokesOf(pad).value.length > FIELD.most) return;
    strokesOf(pad).value += ` ${pointOf(canvas, event)}`;
    redraw(pad);
  });

  document.addEventListener('click', (event) => {
    const clear = event.target.closest('[data-sign-clear]');
    if (!clear) return;
    const pad = clear.closest('[data-sign]');
    strokesOf(pad).value = '';
    redraw(pad);
  });

  document.querySelectorAll('[data-sign]').forEach((pad) => {
    pad.hidden = false;
    redraw(pad);
  });
}

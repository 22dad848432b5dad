/* A slider that shows one of the steps beside it. */
document.addEventListener('input', (event) => {
  const slider = event.target.closest('[data-step]');
  if (!slider) return;
  const steps = slider.closest('.steps').querySelectorAll('.step');
  steps.forEach((step, i) => {
    step.hidden = i !== Number(slider.value);
  });
});

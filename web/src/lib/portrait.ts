/** How a plant is drawn, by its form: outlines as core has them, for screen and paper alike. No rules of the job. */
import forms from '../api/forms.json';

export type Form = keyof typeof forms;
type Point = [number, number]; // shares of half the spread, and of the height

const of = (form: Form) => forms[form] as { outline: Point[]; lines: Point[][]; back: Point[][] };

/** The closed outline, as points; of what stands below a share of the height. */
export function outline(form: Form, upTo = 1): Point[] {
  const all = of(form).outline;
  if (upTo >= 1) return all;
  const out: Point[] = [];
  all.forEach((b, i) => {
    const a = all[(i || all.length) - 1]!;
    if (a[1] > upTo !== b[1] > upTo) out.push([a[0] + ((b[0] - a[0]) * (upTo - a[1])) / (b[1] - a[1]), upTo]);
    if (b[1] <= upTo) out.push(b);
  });
  return out;
}

/** The outline as a path: about a middle, on a foot, so much to either side and so tall. */
export const silhouette = (form: Form, middle: number, foot: number, half: number, tall: number) =>
  'M' +
  outline(form)
    .map(([w, z]) => `${(middle + w * half).toFixed(1)} ${(foot - z * tall).toFixed(1)}`)
    .join('L') +
  'Z';

/** Stems, branches and fronds, within the outline. */
export const lines = (form: Form) => of(form).lines;

/** What it grows on. */
export const behind = (form: Form) => of(form).back;

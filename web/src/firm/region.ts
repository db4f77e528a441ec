/** What the reader's region says of a firm that has set nothing yet. */
import { api, ask, onceKey } from '../api/client';
import { house } from '../lib/house.svelte';

const imperialIn = ['US', 'LR', 'MM', 'PR', 'GU', 'VI', 'AS', 'MP'];
const sundayIn = 'US CA MX BR PE ZA IN JP KR TW HK PH TH IL SA PR'.split(' ');

/** Units and the first day of the week as a region has them. */
export function usual(language: string): { units: 'metric' | 'imperial'; week_start: 0 | 1 | 6; region: string } {
  const region = new Intl.Locale(language).maximize().region ?? '';
  const named = new Intl.Locale(language).region !== undefined; // "en" alone says nothing
  return {
    units: named && imperialIn.includes(region) ? 'imperial' : 'metric',
    week_start: ['EG', 'AF', 'IR', 'IQ'].includes(region) ? 6 : named && sundayIn.includes(region) ? 0 : 1,
    region,
  };
}

/** Sets them once, at the first start, where they are others than the program's own; says so, and where they are changed. */
export async function setByRegion(): Promise<void> {
  const firm = house.frame?.firm;
  if (!firm || firm.version !== 0 || firm.sample || house.frame?.counts.grounds) return; // who has begun keeps what stands
  const { units, week_start, region } = usual(navigator.language);
  if (units === firm.units && week_start === firm.week_start) return;
  const body = { name: firm.name, units, week_start, rules: firm.rules, version: 0 };
  await ask(api.PUT('/api/v1/firm', { params: { header: onceKey() }, body }));
  await house.refresh();
  const place = new Intl.DisplayNames('en', { type: 'region' }).of(region) ?? region;
  const first = { 0: 'Sunday', 1: 'Monday', 6: 'Saturday' }[week_start];
  house.say(`Set by your region, ${place}: ${units} units, weeks from ${first}. Change them in Settings.`);
}

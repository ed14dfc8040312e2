import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'dyno',
    order: 6,
    label: 'Dyno',
    view: async () => (await import('./DynoView')).DynoView,
    summary: async () => (await import('./DynoSummary')).DynoSummary,
    home: { role: 'dyno', title: 'For the dyno' },
});

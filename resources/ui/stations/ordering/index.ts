import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'ordering',
    order: 3,
    label: 'Ordering',
    view: async () => (await import('./Order')).Order,
    summary: async () => (await import('./OrderingSummary')).OrderingSummary,
});

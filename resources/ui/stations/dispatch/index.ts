import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'dispatch',
    order: 7,
    label: 'Dispatch',
    view: async () => (await import('./ShipView')).ShipView,
    summary: async () => (await import('./DispatchSummary')).DispatchSummary,
    home: { role: 'dyno', title: 'Ready to leave' },
});

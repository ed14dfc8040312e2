import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'receiving',
    order: 1,
    label: 'Receiving',
    view: async () => (await import('./Intake')).Intake,
    summary: async () => (await import('./ReceivingSummary')).ReceivingSummary,
});

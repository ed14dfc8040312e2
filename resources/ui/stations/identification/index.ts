import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'identification',
    order: 2,
    label: 'Identification',
    view: async () => (await import('./Identify')).Identify,
    summary: async () => (await import('./IdentificationSummary')).IdentificationSummary,
    home: { role: 'receiver', title: 'On the dock, to be identified' },
});

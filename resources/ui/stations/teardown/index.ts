import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'teardown',
    order: 4,
    label: 'Teardown',
    view: async () => (await import('./TeardownView')).TeardownView,
    summary: async () => (await import('./TeardownSummary')).TeardownSummary,
    home: { role: 'teardown', title: 'To be torn down' },
});

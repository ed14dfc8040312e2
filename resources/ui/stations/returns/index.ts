import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'returns',
    order: 8,
    label: 'Returns',
    view: async () => (await import('./ReturnView')).ReturnView,
    summary: async () => (await import('./ReturnsSummary')).ReturnsSummary,
    reads: ['dispatch'],
    begin: {
        when: (card) => card.station === 'field',
        view: async () => (await import('./OpenReturn')).OpenReturn,
    },
    home: { role: 'returns', title: 'Came back' },
});

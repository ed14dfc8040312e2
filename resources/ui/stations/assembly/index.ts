import { defineStation } from '../../card/section';

export const station = defineStation({
    id: 'assembly',
    order: 5,
    label: 'Assembly',
    view: async () => (await import('./AssemblyView')).AssemblyView,
    summary: async () => (await import('./AssemblySummary')).AssemblySummary,
    home: { role: 'builder', title: 'On the assembly bench' },
});

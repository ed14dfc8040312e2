import 'fake-indexeddb/auto';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card } from '../../api/client';

const seen = vi.hoisted(() => ({ fetch: null as null | ((r: Request) => Promise<Response>) }));
vi.mock('openapi-fetch', async (original) => {
    const real = (await original()) as { default: (o: object) => unknown };
    return {
        ...real,
        default: (o: object) =>
            real.default({ ...o, baseUrl: 'http://yard.test/api', fetch: (r: Request) => seen.fetch?.(r) }),
    };
});

import { ReturnView } from './ReturnView';

type Section = NonNullable<Card['returns']>;

const section = (observed: Record<string, string>, known: Section['cases'][number]['known']): Section => ({
    questions: [
        { feature: 'plates', name: 'Which plates are burnt', values: ['none', 'one pack'] },
        { feature: 'record', name: 'Our build record', values: ['well inside', 'near the limit'] },
    ],
    verdicts: [{ id: 'part', name: 'Part or lot defect', pays: 'supplier' }],
    source: 'house table',
    work: { family: 'F', operations: [], hoursLeft: 0, longestPath: [], handover: [] },
    cases: [
        {
            number: 'R-0001',
            serial: 'VY-26-0001',
            complaint: 'Slips in third',
            codes: [],
            installedOn: '2026-08-01',
            failedOn: '2026-11-01',
            odometerKm: null,
            daysInService: 92,
            openedBy: 'Tess',
            openedAt: '2026-11-02T10:00:00Z',
            observed,
            known,
            ranking: [
                {
                    verdict: 'part',
                    name: 'Part or lot defect',
                    pays: 'supplier',
                    posterior: 0.6,
                    supports: ['record'],
                    contradicts: [],
                },
            ],
            next: {},
            impossible: null,
            thenAndNow: [],
            verdict: null,
            note: '',
            split: null,
            verdictBy: null,
            verdictAt: null,
            secondBuildOpened: false,
            version: 4,
        },
    ],
});

const RECORD = { record: { value: 'well inside', says: 'Forward clutch: built at 0.065 in; now .091.' } };
let sent: unknown[];

beforeEach(() => {
    sent = [];
    seen.fetch = async (r) => {
        sent.push(await r.clone().json());
        return Response.json({});
    };
});
afterEach(cleanup);

const mount = (s: Section, can = true) =>
    render(
        <QueryClientProvider client={new QueryClient()}>
            <ReturnView
                section={s}
                card={{ coreTag: 'C-1', station: 'returns', version: 4 } as Card}
                onCard={() => undefined}
                can={() => can}
            />
        </QueryClientProvider>,
    );

describe('the evidence of a return', () => {
    it('is not asked where the record knows it, and says from what', () => {
        mount(section({}, RECORD));
        expect(screen.getByText('From the record: Forward clutch: built at 0.065 in; now .091.')).toBeTruthy();
        expect(screen.getByText('well inside', { selector: 'strong' })).toBeTruthy();
        expect(screen.getByRole('button', { name: 'one pack' })).toBeTruthy();
    });

    it('lets a person know better than the record', async () => {
        mount(section({}, RECORD));
        fireEvent.click(screen.getByRole('button', { name: /I know better/ }));
        fireEvent.click(screen.getByRole('button', { name: 'near the limit' }));
        await waitFor(() => expect(sent).toHaveLength(1));
        expect(sent[0]).toEqual({ feature: 'record', value: 'near the limit', version: 4 });
        cleanup();
        mount(section({ record: 'near the limit' }, RECORD));
        expect(screen.getByText(/The record says well inside/)).toBeTruthy();
    });

    it('is only read by who may not handle returns', () => {
        mount(section({}, RECORD), false);
        expect(screen.queryByRole('button', { name: 'one pack' })).toBeNull();
        expect(screen.queryByRole('button', { name: /I know better/ })).toBeNull();
        expect(screen.getByText('not looked at')).toBeTruthy();
    });
});

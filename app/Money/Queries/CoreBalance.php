<?php

namespace App\Money\Queries;

use App\Shop\Models\Customer;
use Illuminate\Support\Facades\DB;

/** Cores owed, received and credited by customer, and the statement a customer gets. */
final class CoreBalance
{
    /** @return list<array<string, mixed>> customers with cores in either direction, most overdue first */
    public function all(): array
    {
        $debts = DB::table('core_debts')
            ->groupBy('customer_id')
            ->selectRaw(
                'customer_id, SUM(settled_at IS NULL) AS owed, SUM(IF(settled_at IS NULL, core_charge, 0)) AS charged, '
                    .'SUM(settled_at IS NULL AND due_on < ?) AS overdue, MIN(IF(settled_at IS NULL, due_on, NULL)) AS '
                    .'oldest',
                [now()->format('Y-m-d')],
            );
        $cores = DB::table('units')
            ->where('ownership', 'exchange')
            ->whereNotNull('customer_id')
            ->groupBy('customer_id')
            ->selectRaw('customer_id, COUNT(*) AS received, SUM(credit) AS credited');

        return array_values(DB::table('customers AS c')
            ->leftJoinSub($debts, 'd', 'd.customer_id', '=', 'c.id')
            ->leftJoinSub($cores, 'u', 'u.customer_id', '=', 'c.id')
            ->where(fn ($w) => $w->whereNotNull('d.customer_id')->orWhereNotNull('u.customer_id'))
            ->orderByRaw('COALESCE(overdue, 0) DESC, COALESCE(owed, 0) DESC, c.name')
            ->get(['c.code', 'c.name', 'owed', 'charged', 'overdue', 'oldest', 'received', 'credited'])
            ->map(
                fn (\stdClass $r) => [
                    'customer' => ['code' => $r->code, 'name' => $r->name],
                    'owed' => (int) $r->owed,
                    'charged' => (float) $r->charged,
                    'overdue' => (int) $r->overdue,
                    'oldestDue' => $r->oldest,
                    'received' => (int) $r->received,
                    'credited' => (float) $r->credited,
                ],
            )
            ->all());
    }

    /** @return array<string, mixed> */
    public function statement(Customer $customer, string $from, string $to): array
    {
        $cores = DB::table('units AS u')
            ->leftJoin('variants AS v', 'v.id', '=', 'u.variant_id')
            ->leftJoin('families AS f', 'f.id', '=', 'u.family_id')
            ->leftJoin('core_debts AS d', 'd.settled_by_unit_id', '=', 'u.id')
            ->where('u.customer_id', $customer->id)
            ->where('u.ownership', 'exchange')
            ->whereBetween('u.received_at', [$from, "$to 23:59:59"])
            ->orderBy('u.received_at')
            ->limit(500)
            ->get([
                'u.core_tag',
                'u.received_at',
                'u.grade',
                'u.grade_reason',
                'u.credit',
                'u.credit_lines',
                'u.credit_revision',
                'v.code AS variant',
                'f.name AS family',
                'd.id AS settles',
            ]);
        $debts = DB::table('core_debts AS d')
            ->join('builds AS b', 'b.id', '=', 'd.build_id')
            ->join('families AS f', 'f.id', '=', 'd.family_id')
            ->leftJoin('units AS s', 's.id', '=', 'd.settled_by_unit_id')
            ->where('d.customer_id', $customer->id)
            ->where(fn ($w) => $w->whereNull('d.settled_at')->orWhereBetween('d.charged_on', [$from, $to]))
            ->orderBy('d.charged_on')
            ->limit(500)
            ->get([
                'b.serial',
                'f.name AS family',
                'd.core_charge',
                'd.charged_on',
                'd.due_on',
                'd.settled_at',
                's.core_tag',
            ]);
        $today = now()->format('Y-m-d');
        $owed = $debts->whereNull('settled_at');

        return [
            'customer' => ['code' => $customer->code, 'name' => $customer->name, 'city' => $customer->city],
            'from' => $from,
            'to' => $to,
            'cores' => $cores
                ->map(
                    fn (\stdClass $c) => [
                        'coreTag' => $c->core_tag,
                        'receivedOn' => substr($c->received_at, 0, 10),
                        'unit' => $c->variant ?? ($c->family ?? 'not identified'),
                        'grade' => $c->grade,
                        'reason' => $c->grade_reason,
                        'credit' => (float) $c->credit,
                        'lines' => json_decode($c->credit_lines, true),
                        'revision' => self::revision($c->credit_revision),
                        'settles' => $c->settles !== null,
                    ],
                )
                ->all(),
            'debts' => $debts
                ->map(
                    fn (\stdClass $d) => [
                        'serial' => $d->serial,
                        'family' => $d->family,
                        'charge' => (float) $d->core_charge,
                        'chargedOn' => $d->charged_on,
                        'dueOn' => $d->due_on,
                        'settledBy' => $d->core_tag,
                        'overdue' => $d->settled_at === null && $d->due_on < $today,
                    ],
                )
                ->all(),
            'totals' => [
                'credited' => round((float) $cores->sum(fn (\stdClass $c) => (float) $c->credit), 2),
                'owed' => $owed->count(),
                'charged' => round((float) $owed->sum(fn (\stdClass $d) => (float) $d->core_charge), 2),
                'overdue' => $owed->where('due_on', '<', $today)->count(),
            ],
        ];
    }

    /** @return array{before: float, reason: string, at: string}|null */
    private static function revision(?string $json): ?array
    {
        $r = $json === null ? null : json_decode($json, true);

        return $r === null ? null : ['before' => (float) $r['before'], 'reason' => $r['reason'], 'at' => $r['at']];
    }
}

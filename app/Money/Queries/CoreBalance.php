<?php

namespace App\Money\Queries;

use App\Shop\Models\Customer;
use App\Yard\Models\CreditLine;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Cores owed, received and credited by customer, and the statement a customer gets. */
final class CoreBalance
{
    /** Lines on one statement; the totals are of all, and the paper says how many it leaves out. */
    public const LINES = 500;

    /** What the list is sorted by; a minus turns it round. */
    public const ORDERS = [
        'customer' => ['c.name'],
        'owed' => ['COALESCE(owed, 0)'],
        'charged' => ['COALESCE(charged, 0)'],
        'overdue' => ['COALESCE(overdue, 0)', 'COALESCE(owed, 0)'],
    ];

    /** @return array{total: int, after: ?int, balances: list<array<string, mixed>>} most overdue first, or as asked */
    public function page(string $typed, string $sort, int $skip, int $size): array
    {
        $direction = str_starts_with($sort, '-') ? ' DESC' : '';
        $by = array_map(fn (string $c) => $c.$direction, self::ORDERS[ltrim($sort, '-')]);
        // Only what is owed is read for the order; what came in is added up for the customers of the page.
        $owed = DB::table('core_debts')
            ->whereNull('settled_at')
            ->groupBy('customer_id')
            ->selectRaw(
                'customer_id, COUNT(*) AS owed, SUM(core_charge) AS charged, SUM(due_on < ?) AS overdue, '
                    .'MIN(due_on) AS oldest',
                [now()->format('Y-m-d')],
            );
        $customers = DB::table('customers AS c')
            ->where('c.core_account', true) // owed a core or sent one, ever
            ->when($typed !== '', fn ($q) => $q->where('c.name', 'like', addcslashes($typed, '%_\\').'%'));
        $joined = fn (string $how): Collection => (clone $customers)
            ->joinSub($owed, 'd', 'd.customer_id', '=', 'c.id', $how)
            ->orderByRaw(implode(', ', [...$by, 'c.name', 'c.id']))
            ->offset($skip)
            ->limit($size + 1)
            ->get(['c.id', 'c.code', 'c.name', 'owed', 'charged', 'overdue', 'oldest']);
        // Who owes most comes first, and all who owe before those who do not: a page of theirs needs nobody else.
        $rows = $direction !== '' && $sort !== '-customer' ? $joined('inner') : collect();
        $rows = $rows->count() > $size ? $rows : $joined('left');
        $page = $rows->take($size);
        $came = self::received(DB::table('units AS u'))
            ->whereIn('u.customer_id', $page->pluck('id'))
            ->groupBy('u.customer_id')
            ->selectRaw('u.customer_id, COUNT(*) AS received, SUM(credit) AS credited')
            ->get()
            ->keyBy('customer_id');

        return [
            'total' => $customers->count(),
            'after' => $rows->count() > $size ? $skip + $size : null,
            'balances' => array_values(
                $page->map(fn (\stdClass $r) => self::shown($r, $came[$r->id] ?? null))->all(),
            ),
        ];
    }

    /** Cores that came for credit. */
    private static function received(Builder $units): Builder
    {
        return $units->where('u.ownership', 'exchange');
    }

    /** @return array<string, mixed> */
    private static function shown(\stdClass $r, ?\stdClass $came): array
    {
        return [
            'customer' => ['code' => $r->code, 'name' => $r->name],
            'owed' => (int) $r->owed,
            'charged' => (float) $r->charged,
            'overdue' => (int) $r->overdue,
            'oldestDue' => $r->oldest,
            'received' => (int) $came?->received,
            'credited' => (float) $came?->credited,
        ];
    }

    /** @return array<string, mixed> */
    public function statement(Customer $customer, string $from, string $to): array
    {
        $received = DB::table('units AS u')
            ->where('u.customer_id', $customer->id)
            ->where('u.ownership', 'exchange')
            ->whereBetween('u.received_at', [$from, "$to 23:59:59"]);
        $charged = DB::table('core_debts AS d')
            ->where('d.customer_id', $customer->id)
            ->where(fn ($w) => $w->whereNull('d.settled_at')->orWhereBetween('d.charged_on', [$from, $to]));
        $today = now()->format('Y-m-d');

        return [
            'customer' => ['code' => $customer->code, 'name' => $customer->name, 'city' => $customer->city],
            'from' => $from,
            'to' => $to,
            'totals' => self::totals(clone $received, clone $charged, $today),
            'cores' => self::cores($received),
            'debts' => self::debts($charged, $today),
        ];
    }

    /** @return array<string, int|float> of all there is, shown or not */
    private static function totals(Builder $received, Builder $charged, string $today): array
    {
        $credited = $received->selectRaw('COUNT(*) AS cores, SUM(credit) AS credited')->first();
        $owed = $charged
            ->selectRaw(
                'COUNT(*) AS units, SUM(settled_at IS NULL) AS owed, SUM(IF(settled_at IS NULL, core_charge, 0)) AS '
                    .'charged, SUM(settled_at IS NULL AND due_on < ?) AS overdue',
                [$today],
            )
            ->first();

        return [
            'cores' => (int) $credited?->cores,
            'credited' => round((float) $credited?->credited, 2),
            'units' => (int) $owed?->units,
            'owed' => (int) $owed?->owed,
            'charged' => round((float) $owed?->charged, 2),
            'overdue' => (int) $owed?->overdue,
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function cores(Builder $received): array
    {
        $cores = $received
            ->leftJoin('variants AS v', 'v.id', '=', 'u.variant_id')
            ->leftJoin('families AS f', 'f.id', '=', 'u.family_id')
            ->leftJoin('core_debts AS d', 'd.settled_by_unit_id', '=', 'u.id')
            ->orderBy('u.received_at')
            ->limit(self::LINES)
            ->select(['u.id', 'u.core_tag', 'u.received_at', 'u.grade', 'u.grade_reason', 'u.credit'])
            ->addSelect(['u.credit_revision', 'v.code AS variant', 'f.name AS family', 'd.id AS settles'])
            ->get();
        $lines = self::lines($cores);

        return array_values($cores
            ->map(
                fn (\stdClass $c) => [
                    'coreTag' => $c->core_tag,
                    'receivedOn' => substr($c->received_at, 0, 10),
                    'unit' => $c->variant ?? ($c->family ?? 'not identified'),
                    'grade' => $c->grade,
                    'reason' => $c->grade_reason,
                    'credit' => (float) $c->credit,
                    'lines' => $lines[$c->id] ?? [],
                    'revision' => self::revision($c->credit_revision),
                    'settles' => $c->settles !== null,
                ],
            )
            ->all());
    }

    /** @return list<array<string, mixed>> */
    private static function debts(Builder $charged, string $today): array
    {
        return array_values($charged
            ->join('builds AS b', 'b.id', '=', 'd.build_id')
            ->join('families AS f', 'f.id', '=', 'd.family_id')
            ->leftJoin('units AS s', 's.id', '=', 'd.settled_by_unit_id')
            ->orderBy('d.charged_on')
            ->limit(self::LINES)
            ->select(['b.serial', 'f.name AS family', 'd.core_charge', 'd.charged_on'])
            ->addSelect(['d.due_on', 'd.settled_at', 's.core_tag'])
            ->get()
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
            ->all());
    }

    /** @return array{before: float, reason: string, at: string}|null */
    private static function revision(?string $json): ?array
    {
        $r = $json === null ? null : json_decode($json, true);

        return $r === null ? null : ['before' => (float) $r['before'], 'reason' => $r['reason'], 'at' => $r['at']];
    }

    /**
     * @param  Collection<int, \stdClass>  $cores
     * @return array<int, list<array<string, mixed>>> unit => the lines in force
     */
    private static function lines(Collection $cores): array
    {
        $revised = $cores->pluck('credit_revision', 'id');
        $out = [];
        foreach (
            CreditLine::query()
                ->whereIn('unit_id', $revised->keys())
                ->orderBy('position')
                ->get() as $line
        ) {
            if (($revised[$line->unit_id] !== null) === ($line->revision === 1)) {
                $out[$line->unit_id][] = $line->shown();
            }
        }

        return $out;
    }
}

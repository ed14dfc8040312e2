<?php

namespace App\Shop\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Gauge;
use App\Shop\Models\GaugeCheck;
use App\Shop\Models\GaugeStudyRecord;
use App\Shop\Models\Person;
use Yard\Core\BadInput;
use Yard\Core\Spc\GaugeStudy;

/** Gauges are held against standards and studied; one found bad puts in doubt what it showed since it was last good. */
final class KeepGauges
{
    /** A gauge that tells a part from itself for ever would overflow the column; nobody has such a gauge. */
    private const MOST_CATEGORIES = 9999;

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function check(string $code, bool $good, ?string $nextDue, string $note, Person $by): void
    {
        $gauge = self::gauge($code);
        if ($good && ($nextDue === null || $nextDue <= now()->format('Y-m-d'))) {
            throw Refusal::at('/nextDue', 'Say when it is due again: a day that is still to come.');
        }
        if (! $good && $note === '') {
            throw Refusal::at('/note', 'Say what is wrong with it.');
        }
        $last = GaugeCheck::query()->where('gauge_id', $gauge->id)->where('result', 'good')->latest('id')->first();
        $gauge->update($good
            ? ['calibrated_until' => $nextDue, 'version' => $gauge->version + 1]
            : [
                // Out of use from now on, and nothing it showed since it was last good is sure.
                'calibrated_until' => now()->subDay()->format('Y-m-d'),
                'doubt_from' => $last->checked_at ?? '2000-01-01 00:00:00',
                'doubt_to' => now(),
                'version' => $gauge->version + 1,
            ]);
        GaugeCheck::query()->create([
            'gauge_id' => $gauge->id,
            'result' => $good ? 'good' : 'bad',
            'next_due' => $good ? $nextDue : null,
            'note' => $note,
            'checked_by' => $by->id,
            'checked_at' => now(),
        ]);
        $this->ledger->record('shop', 'gauge.checked', compact('code', 'good', 'nextDue', 'note'));
    }

    /** @param  list<array{person: string, part: string, reading: string}>  $rows  in any order */
    public function study(string $code, array $rows, Person $by): GaugeStudyRecord
    {
        $gauge = self::gauge($code);
        $byPerson = [];
        foreach ($rows as $n => $row) {
            $read = TypedQuantity::parse($row['reading'], $gauge->kind, $gauge->unit, "/rows/$n/reading");
            $byPerson[$row['person']][$row['part']][] = $read->in($gauge->unit);
        }
        array_walk($byPerson, fn (array &$parts) => ksort($parts));
        $readings = array_values(array_map(fn (array $parts): array => array_values($parts), $byPerson));
        try {
            $study = GaugeStudy::of($readings);
        } catch (BadInput $e) {
            throw Refusal::at('/rows', $e->getMessage());
        }
        $record = GaugeStudyRecord::query()->create([
            'gauge_id' => $gauge->id,
            'unit' => $gauge->unit,
            'readings' => $readings,
            'repeatability' => $study->repeatability,
            'reproducibility' => $study->reproducibility,
            'part_spread' => $study->parts,
            'categories' => min(self::MOST_CATEGORIES, $study->categories()),
            'studied_by' => $by->id,
            'studied_at' => now(),
        ]);
        $gauge->update(['spread' => $study->gauge(), 'version' => $gauge->version + 1]);
        $this->ledger->record('shop', 'gauge.studied', ['code' => $code, 'spread' => $study->gauge()]);

        return $record;
    }

    private static function gauge(string $code): Gauge
    {
        return Gauge::query()->where('code', $code)->lockForUpdate()->first() ??
            throw new Refusal("There is no gauge $code.", 404);
    }
}

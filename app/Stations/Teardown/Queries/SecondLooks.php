<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Vocabulary;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Models\SecondGrade;
use App\Yard\StationName;
use Illuminate\Support\Facades\DB;
use Yard\Core\BadInput;
use Yard\Core\Evidence\Agreement;

/** Parts that wait for a second, blind grade; and how far two people who grade the same part agree. */
final class SecondLooks
{
    private const MOST = 50;

    /** Grades that agreement is reckoned from. */
    private const NEWEST = 2000;

    /** Fewer pairs say nothing. */
    private const LEAST = 5;

    private const CONFIDENCE = 0.95;

    private const WORDS = ['good', 'borderline', 'scrap'];

    /** @return array{parts: list<array<string, mixed>>, more: bool} what this person may grade; no first grade in it */
    public function due(Person $by): array
    {
        $due = Finding::query()
            ->join('units', 'units.id', '=', 'findings.unit_id')
            ->where('second_due', true)
            ->where('found_by', '<>', $by->id)
            ->whereIn('units.station', [StationName::Teardown->value, StationName::Assembly->value])
            ->orderBy('findings.id')
            ->limit(self::MOST + 1)
            ->get(['findings.part', 'units.core_tag', 'units.family_id']);
        $lists = [];
        $parts = [];
        foreach ($due->take(self::MOST) as $row) {
            $family = (int) $row->getAttribute('family_id');
            $lists[$family] ??= array_column(FamilySpec::bodies($family, 'finding'), null, 'code');
            $spec = $lists[$family][$row->part] ?? null;
            if ($spec !== null) {
                $parts[] = [
                    'coreTag' => $row->getAttribute('core_tag'),
                    'part' => $row->part,
                    'name' => $spec['name'],
                    'kind' => $spec['kind'] ?? '',
                    'conditions' => $spec['conditions'],
                ];
            }
        }

        return ['parts' => $parts, 'more' => $due->count() > self::MOST];
    }

    /** @return list<array<string, mixed>> by kind of part, all kinds first; the newest grades only */
    public function agreement(): array
    {
        $known = Vocabulary::query()->where('code', 'part-kinds')->first();
        $names = array_column($known->body->kinds ?? [], 'name', 'code');
        $pairs = ['' => []];
        foreach ($this->newest() as $grade) {
            $pair = [$grade['first'], $grade['second']];
            $pairs[''][] = $pair;
            $pairs[$grade['kind']][] = $pair;
        }
        uasort($pairs, fn (array $a, array $b): int => count($b) <=> count($a));
        $rows = [];
        foreach ($pairs as $kind => $ofKind) {
            $name = $kind === '' ? 'All kinds of parts' : $names[$kind] ?? $kind;
            $rows[] = ['kind' => $kind, 'name' => $name] + self::reckoned($ofKind);
        }

        return $rows;
    }

    /** @return list<array{kind: string, first: string, second: string}> in words that all kinds share */
    private function newest(): array
    {
        $grades = SecondGrade::query()->orderByDesc('id')->limit(self::NEWEST)->get();
        $units = $grades->pluck('unit_id')->unique()->all();
        $families = DB::table('units')->whereIn('id', $units)->pluck('family_id', 'id');
        $lists = [];
        $found = [];
        foreach ($grades as $g) {
            $family = (int) $families[$g->unit_id];
            $lists[$family] ??= array_column(FamilySpec::bodies($family, 'finding'), 'conditions', 'code');
            $conditions = $lists[$family][$g->part] ?? [];
            $first = self::word($g->first_condition, $conditions);
            $second = self::word($g->second_condition, $conditions);
            if ($first !== null && $second !== null) {
                $found[] = ['kind' => $g->part_kind, 'first' => $first, 'second' => $second];
            }
        }

        return $found;
    }

    /** @param  list<string>  $conditions  best first */
    private static function word(string $condition, array $conditions): ?string
    {
        return match (array_search($condition, $conditions, true)) {
            false => null,
            0 => self::WORDS[0],
            count($conditions) - 1 => self::WORDS[2],
            default => self::WORDS[1],
        };
    }

    /**
     * @param  list<array{string, string}>  $pairs
     * @return array<string, mixed>
     */
    private static function reckoned(array $pairs): array
    {
        $none = ['kappa' => null, 'lower' => null, 'upper' => null];
        $n = count($pairs);
        $same = count(array_filter($pairs, fn (array $p): bool => $p[0] === $p[1]));
        $seen = ['n' => $n, 'observed' => $n === 0 ? null : $same / $n];
        if ($n < self::LEAST) {
            return $seen + $none + ['why' => 'Too few for a number.'];
        }
        try {
            $agreement = Agreement::of($pairs, self::WORDS, 'linear');
        } catch (BadInput $e) {
            return $seen + $none + ['why' => $e->getMessage()];
        }

        [$lower, $upper] = $agreement->bounds(self::CONFIDENCE);

        return $seen + ['kappa' => $agreement->kappa(), 'lower' => $lower, 'upper' => $upper, 'why' => null];
    }
}

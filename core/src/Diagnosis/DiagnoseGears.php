<?php

declare(strict_types=1);

namespace Yard\Core\Diagnosis;

use Yard\Core\Calculator;
use Yard\Core\Calculators;
use Yard\Core\GearTrain\Train;
use Yard\Core\Input;

/**
 * Which element failed: hypotheses from the apply chart and the torque each gear puts on each element, ranked by
 * evidence.rank. A good gear clears an element only when it loads the element at least as hard as a bad gear does.
 */
final class DiagnoseGears implements Calculator
{
    private const OTHERS = ['line-pressure', 'converter', 'control'];

    /**
     * @var array<string, array<string,
     *     float>> gear => element => |torque|relative to the input torque; -1 when applied but undetermined
     */
    private array $torque = [];

    /** @var array<string, list<string>> gear => applied elements */
    private array $chart = [];

    public function calculate(Input $in): array
    {
        $train = Train::read($in);
        foreach ($in->list('gears') as $gear) {
            $name = $gear->name('name');
            $this->chart[$name] = array_map(static fn (Input $e): string => $e->asString(), $gear->list('applied'));
            foreach ($gear->list('applied') as $e) {
                if (! isset($train->elements[$e->asString()])) {
                    throw $e->fail(
                        'unknown-element',
                        "The element \"{$e->asString()}\" is not in the list of elements.",
                    );
                }
            }
            $solved = $train->solve($this->chart[$name]);
            foreach ($this->chart[$name] as $element) {
                $this->torque[$name][$element] =
                    abs($solved['elementTorque'][$element] ?? -1.0) * ($solved['elementTorque'] === [] ? -1.0 : 1.0);
            }
        }
        $observed = $this->readObserved($in);
        $table = self::table();
        $features = $this->features($observed, $table);
        $codes = $this->readCodes($in, $table);
        foreach (array_keys($codes) as $feature) {
            $features[] = [
                'id' => $feature,
                'values' => ['stored', 'not stored'],
                'reliability' => $table['reliability']['code'],
            ];
        }
        $elements = array_values(array_map(static fn ($e): string => $e->id, $train->elements));
        $weak = [];
        foreach ($in->optional('weak')?->asMap() ?? [] as $id => $weight) {
            if (! in_array((string) $id, [...$elements, ...self::OTHERS], true)) {
                throw $weight->fail('unknown-element', "There is no element \"$id\".");
            }
            $weak[$id] = $weight->asNumber(min: 0.0);
        }
        $hypotheses = [];
        foreach ([...$elements, ...self::OTHERS] as $id) {
            $isElement = ! in_array($id, self::OTHERS, true);
            $expect = [];
            foreach ($observed as $feature => $value) {
                $row = $isElement ? $this->row($id, $feature, $observed) : $id;
                $expect[$feature] = self::likelihoods($table, $feature)[$row];
            }
            foreach ($codes as $feature => [$means, $gear]) {
                $stored =
                    $table['code'][$means][
                        $isElement ? (in_array($id, $this->chart[$gear] ?? [], true) ? 'carries' : 'idle') : $id
                    ];
                $expect[$feature] = ['stored' => $stored, 'not stored' => 1.0 - $stored];
            }
            $hypotheses[] = [
                'id' => $id,
                'prior' => ($isElement ? $table['prior']['element'] : $table['prior'][$id]) * ($weak[$id] ?? 1.0),
                'expect' => (object) $expect,
            ];
        }
        $ranked = Calculators::call('evidence.rank', [
            'hypotheses' => $hypotheses,
            'features' => $features,
            'observed' => (object) ($observed + array_fill_keys(array_keys($codes), 'stored')),
        ]);
        $suspects = [];
        /** @var list<array{id: string, posterior: float}> $ranking */
        $ranking = $ranked['ranking'];
        foreach ($ranking as $row) {
            $clearedBy = $this->clearedBy($row['id'], $observed);
            $suspects[] =
                [
                    'element' => $row['id'],
                    'posterior' => $row['posterior'],
                    'because' => $this->because($row['id'], $observed, $clearedBy),
                ] + ($clearedBy === [] ? [] : ['clearedBy' => $clearedBy]);
        }

        return ['suspects' => $suspects, 'entropyBits' => $ranked['entropyBits'], 'table' => $table];
    }

    /** @return array<string, string> feature ("gear:4", "shift:2-3", "pressure:C1") => value */
    private function readObserved(Input $in): array
    {
        $observed = [];
        foreach ($in->map('observed') as $what => $value) {
            $what = (string) $what;
            if (isset($this->chart[$what])) {
                $observed["gear:$what"] = self::oneOf($value, ['ok', 'slips', 'missing']);

                continue;
            }
            [$from, $to] = array_pad(explode('-', $what, 2), 2, '');
            if (! isset($this->chart[$from], $this->chart[$to])) {
                throw $value->fail(
                    'unknown-gear',
                    "\"$what\" is neither a gear of the chart nor a shift between two of them.",
                );
            }
            $observed["shift:$what"] = self::oneOf($value, ['ok', 'flare', 'tie-up', 'delayed']);
        }
        foreach ($in->optional('pressures')?->asMap() ?? [] as $circuit => $value) {
            $observed["pressure:$circuit"] = self::oneOf($value, ['low', 'normal', 'high']);
        }

        return $observed;
    }

    /**
     * Stored trouble codes and what they mean. A code is hearsay of the controller: a solenoid code often says that
     * slip was noticed, not that the solenoid is bad, so it weighs lightly and never alone.
     *
     * @param  array{code: array<string, array<string, float>>}  $table
     * @return array<string, array{string, string}> feature => what it means, gear it speaks of
     */
    private function readCodes(Input $in, array $table): array
    {
        $codes = [];
        foreach ($in->optional('codes')?->asList() ?? [] as $code) {
            $means = $code->choice('means', array_keys($table['code']));
            $gear = $code->has('gear') ? $code->string('gear') : '';
            if ($gear !== '' && ! isset($this->chart[$gear])) {
                throw $code->at('gear')->fail('unknown-gear', "There is no gear \"$gear\" in the chart.");
            }
            $codes['code:'.$code->name('code')] = [$means, $gear];
        }

        return $codes;
    }

    /** @param  list<string>  $allowed */
    private static function oneOf(Input $in, array $allowed): string
    {
        if (! in_array($in->asString(), $allowed, true)) {
            throw $in->fail('choice', "\"{$in->asString()}\" must be one of ".implode(', ', $allowed).'.');
        }

        return $in->asString();
    }

    /**
     * @param  array<string, string>  $observed
     * @param  array{reliability: array<string, float>}  $table
     * @return list<array<string, mixed>>
     */
    private function features(array $observed, array $table): array
    {
        $values = [
            'gear' => ['ok', 'slips', 'missing'],
            'shift' => ['ok', 'flare', 'tie-up', 'delayed'],
            'pressure' => ['low', 'normal', 'high'],
        ];

        return array_map(
            static fn (string $f): array => [
                'id' => $f,
                'values' => $values[self::kindOf($f)],
                'reliability' => $table['reliability'][self::kindOf($f)],
            ],
            array_keys($observed),
        );
    }

    /** @param  array<string, string>  $observed */
    private function row(string $element, string $feature, array $observed): string
    {
        [$kind, $what] = explode(':', $feature, 2);
        if ($kind === 'pressure') {
            return $what === $element ? 'own' : 'other';
        }
        if ($kind === 'shift') {
            [$from, $to] = explode('-', $what, 2);
            $before = in_array($element, $this->chart[$from], true);
            $after = in_array($element, $this->chart[$to], true);

            return $after && ! $before ? 'applies' : ($before && ! $after ? 'releases' : 'idle');
        }
        if (! in_array($element, $this->chart[$what], true)) {
            return 'idle';
        }

        // A good gear that loads the element less than a bad one does not clear it.
        return $observed[$feature] === 'ok' &&
            $this->worstFailed($element, $observed) > $this->torque[$what][$element] + 1e-9
            ? 'carriesLess'
            : 'carries';
    }

    /** @param  array<string, string>  $observed */
    private function worstFailed(string $element, array $observed): float
    {
        $worst = -1.0;
        foreach ($this->torque as $gear => $torques) {
            if (isset($torques[$element]) && in_array($observed["gear:$gear"] ?? 'ok', ['slips', 'missing'], true)) {
                $worst = max($worst, $torques[$element]);
            }
        }

        return $worst;
    }

    /**
     * @param  array<string, string>  $observed
     * @return list<string> good gears that load the element at least as hard as every bad gear
     */
    private function clearedBy(string $element, array $observed): array
    {
        $out = [];
        foreach ($this->torque as $gear => $torques) {
            if (
                isset($torques[$element]) &&
                ($observed["gear:$gear"] ?? '') === 'ok' &&
                $this->worstFailed($element, $observed) <= $torques[$element] + 1e-9
            ) {
                $out[] = (string) $gear;
            }
        }

        return $out;
    }

    /**
     * @param  array<string, string>  $observed
     * @param  list<string>  $clearedBy
     */
    private function because(string $id, array $observed, array $clearedBy): string
    {
        $bad = $good = $badIn = $badOut = [];
        foreach ($this->chart as $gear => $applied) {
            $state = $observed["gear:$gear"] ?? null;
            if ($state === null) {
                continue;
            }
            if ($state === 'ok') {
                $good[] = (string) $gear;
            } else {
                $bad[] = (string) $gear;
                in_array($id, $applied, true) ? ($badIn[] = (string) $gear) : ($badOut[] = (string) $gear);
            }
        }
        if ($id === 'line-pressure' || $id === 'converter') {
            $name = $id === 'converter' ? 'The converter' : 'Line pressure';

            return $bad === []
                ? "$name is in doubt only when gears fail."
                : ($good === []
                    ? "$name touches every gear, and every gear that was tried fails."
                    : "$name touches every gear, yet {$this->join($good)} ".
                        (count($good) === 1 ? 'is' : 'are').
                        ' good.');
        }
        if ($id === 'control') {
            return 'A wrong command or a stuck valve can lose single gears with every clutch sound: read the circuit '
                .'pressures at the case taps.';
        }
        foreach ($observed as $feature => $value) {
            if (
                str_starts_with($feature, 'shift:') &&
                $value === 'flare' &&
                $this->row($id, $feature, $observed) === 'applies'
            ) {
                return "$id comes on in the ".
                    substr($feature, 6).
                    ' shift, which flares'.
                    ($clearedBy === [] ? '.' : ", but gear {$this->join($clearedBy)} loads it fully and is good.");
            }
        }
        if ($badIn === []) {
            return $bad === []
                ? "$id is used by no gear that failed."
                : "$id is not applied in the failed ".
                        (count($bad) === 1 ? 'gear' : 'gears').
                        " {$this->join($bad)}.";
        }
        $sentence =
            "$id works in ".($badOut === [] ? 'every failed gear' : 'the failed gear')." ({$this->join($badIn)})";
        $sentence .=
            $badOut === []
                ? ''
                : ", but {$this->join($badOut)} ".(count($badOut) === 1 ? 'fails' : 'fail').' without it';
        $lighter = array_values(
            array_filter(
                $good,
                fn (string $g): bool => isset($this->torque[$g][$id]) && ! in_array($g, $clearedBy, true),
            ),
        );

        return $sentence.
            match (true) {
                $clearedBy !== [] => ", yet gear {$this->join(
                    $clearedBy,
                )} loads it as hard and is good, which clears it.",
                $lighter !== [] => "; gear {$this->join($lighter)} is good but loads it less, so it is not cleared.",
                default => ' and in none of the good ones.',
            };
    }

    /**
     * @param array{gear: array<string, array<string, float>>, shift: array<string, array<string, float>>,
     *     pressure: array<string, array<string, float>>}  $table
     * @return array<string, array<string, float>>
     */
    private static function likelihoods(array $table, string $feature): array
    {
        return match (self::kindOf($feature)) {
            'gear' => $table['gear'],
            'shift' => $table['shift'],
            default => $table['pressure'],
        };
    }

    /** @param  list<string>  $gears */
    private function join(array $gears): string
    {
        return implode(', ', $gears);
    }

    private static function kindOf(string $feature): string
    {
        return explode(':', $feature, 2)[0];
    }

    /**
     * @return array{source: string, gear: array<string, array<string, float>>, shift: array<string, array<string,
     *     float>>, pressure: array<string, array<string, float>>, code: array<string, array<string, float>>,
     *     prior: array<string, float>, reliability: array<string, float>}
     */
    public static function table(): array
    {
        /**
         * @var array{source: string, gear: array<string, array<string, float>>, shift: array<string, array<string,
         *     float>>, pressure: array<string, array<string, float>>, code: array<string, array<string, float>>,
         *     prior: array<string, float>, reliability: array<string, float>} $table
         */
        $table = json_decode(
            (string) file_get_contents(dirname(__DIR__, 2).'/data/diagnosis.json'),
            true,
            16,
            JSON_THROW_ON_ERROR,
        );

        return $table;
    }
}

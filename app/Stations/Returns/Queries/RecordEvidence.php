<?php

namespace App\Stations\Returns\Queries;

use App\Shop\HouseRules;
use App\Stations\Returns\Models\UnitReturn;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Contracts\InstallationRecord;

/**
 * What the record of a unit says by itself about why it came back. The evidence table says which of its answers stands
 * for what (`record` of a feature: `by` built-reading, weeks-in-service or commissioning); a person may know better.
 *
 * @phpstan-type Known array{value: string, says: string}
 */
final class RecordEvidence
{
    private const DAYS_A_WEEK = 7;

    private const RANK = ['inside' => 0, 'near' => 1, 'missing' => 2];

    public function __construct(
        private readonly VerdictRanking $rank,
        private readonly BuiltNumbers $numbers,
        private readonly InstallationRecord $installation,
        private readonly HouseRules $rules,
    ) {
    }

    /** @return array<string, string> feature => answer: what was seen, and where nobody looked what the record says */
    public function all(UnitReturn $return): array
    {
        return $return->observed() + array_map(fn (array $known) => $known['value'], $this->known($return));
    }

    /** @return array<string, Known> by feature */
    public function known(UnitReturn $return): array
    {
        $known = [];
        foreach ($this->rank->model()['features'] as $feature) {
            $record = $feature['record'] ?? null;
            $says = match ($record['by'] ?? null) {
                'built-reading' => $this->builtReading($return, $record),
                'weeks-in-service' => self::weeks($return, $record),
                'commissioning' => $this->commissioning($return, $record),
                default => null,
            };
            if ($says !== null && in_array($says['value'], $feature['values'], true)) {
                $known[$feature['id']] = $says;
            }
        }

        return $known;
    }

    /**
     * The places that were measured again are the places in question; the worst of them counts.
     *
     * @param  array<string, mixed>  $record  inside, near, missing: the answers
     * @return Known|null
     */
    private function builtReading(UnitReturn $return, array $record): ?array
    {
        $built = [];
        foreach ($this->numbers->of($return->build) as $number) {
            $built["{$number['kind']}:{$number['code']}"] = $number;
        }
        $worst = null;
        foreach ($return->readings as $now) {
            $then = $built["$now->kind:$now->place"] ?? null;
            $answer = $then === null ? 'missing' : ($this->nearEdge($then) ? 'near' : 'inside');
            $says = $then === null
                ? "Nothing was written down of $now->place when it was built; now $now->typed."
                : self::sentence($then, $now->typed);
            if ($worst === null || self::RANK[$answer] > self::RANK[$worst[0]]) {
                $worst = [$answer, $says];
            }
        }

        return $worst === null ? null : ['value' => (string) $record[$worst[0]], 'says' => $worst[1]];
    }

    /** @param  array<string, mixed>  $then */
    private function nearEdge(array $then): bool
    {
        ['value' => $value, 'min' => $min, 'max' => $max] = $then;
        if (($min !== null && $value < $min) || ($max !== null && $value > $max)) {
            return true;
        }
        if ($min === null || $max === null) {
            return false;
        }
        $margin = $this->rules->share('near-limit') * ($max - $min);

        return $value - $min < $margin || $max - $value < $margin;
    }

    /** @param  array<string, mixed>  $then */
    private static function sentence(array $then, string $now): string
    {
        $digits = $then['unit'] === 'in' ? 3 : 2;
        $written = fn (?float $value) => $value === null ? 'open' : number_format($value, $digits, '.', '');
        $window = "{$written($then['min'])} to {$written($then['max'])}";

        return "{$then['name']}: built at {$written($then['value'])} {$then['unit']} in a window of $window; now $now.";
    }

    /**
     * @param  array<string, mixed>  $record  under: list of {weeks, answer}, rising; else
     * @return Known|null
     */
    private static function weeks(UnitReturn $return, array $record): ?array
    {
        if ($return->installed_on === null) {
            return null;
        }
        $days = (int) round((strtotime($return->failed_on) - strtotime($return->installed_on)) / 86400);
        $answer = $record['else'];
        foreach ($record['under'] as $step) {
            if ($days < $step['weeks'] * self::DAYS_A_WEEK) {
                $answer = $step['answer'];
                break;
            }
        }

        return ['value' => (string) $answer, 'says' => "Fitted $return->installed_on, failed $return->failed_on."];
    }

    /**
     * @param  array<string, mixed>  $record  right, wrong, missing: the answers
     * @return Known
     */
    private function commissioning(UnitReturn $return, array $record): array
    {
        return match ($this->installation->converterSeated($return->build)) {
            null => ['value' => (string) $record['missing'], 'says' => 'The installer sent no converter depth.'],
            true => ['value' => (string) $record['right'], 'says' => 'The depth the installer sent lets it seat.'],
            false => ['value' => (string) $record['wrong'], 'says' => 'The depth the installer sent does not seat it.'],
        };
    }
}

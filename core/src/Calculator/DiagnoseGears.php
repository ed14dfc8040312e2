<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Faults\GearDiagnosis;
use Yard\Core\Faults\LikelihoodTable;
use Yard\Core\Faults\StoredCode;
use Yard\Core\Faults\Symptoms;
use Yard\Core\Input;

/** diagnose.gears: what failed, from what each gear and shift does. */
final class DiagnoseGears implements Calculator
{
    /** So many of the first suspects say what they foretell, where looks are asked for. */
    private const FORETOLD = 8;

    public function calculate(Input $in): array
    {
        $text = static fn (Input $value): string => $value->asString();
        $table = LikelihoodTable::house();
        $chart = ApplyChart::read($in);
        $lockup = $in->has('lockup') ? ['lockup' => $in->choice('lockup', Symptoms::STATES['lockup'])] : [];
        $symptoms = $in->within(
            static fn (): Symptoms => new Symptoms(
                $chart,
                array_map($text, $in->map('observed')) + $lockup,
                array_map($text, $in->optional('pressures')?->asMap() ?? []),
                array_map(
                    static fn (Input $code): StoredCode => new StoredCode(
                        $code->name('code'),
                        $code->choice('means', $table->codeMeanings()),
                        $code->stringOr('gear'),
                    ),
                    $in->optional('codes')?->asList() ?? [],
                ),
                self::looked($in),
            ),
        );
        $diagnosis = new GearDiagnosis(
            $chart,
            $symptoms,
            array_map(
                static fn (Input $weight): float => $weight->asNumber(min: 0.0),
                $in->optional('weak')?->asMap() ?? [],
            ),
            $in->has('pairs') && $in->bool('pairs'),
        );

        $looks = $in->has('looks') ? ['next' => $diagnosis->looks($in->integer('looks', min: 1, max: 50))] : [];

        return $diagnosis->ranked($looks === [] ? 0 : self::FORETOLD) + $looks + ['table' => $table->rows];
    }

    /** @return array<string, array<string, string>> kind => what => state */
    private static function looked(Input $in): array
    {
        $out = [];
        foreach (array_diff(Symptoms::ONCE, ['lockup']) as $once) {
            $in->has($once) && ($out[$once] = [$once => $in->choice($once, Symptoms::STATES[$once])]);
        }
        foreach (['air' => 'air', 'findings' => 'finding'] as $field => $kind) {
            foreach ($in->optional($field)?->asMap() ?? [] as $element => $state) {
                $out[$kind][$element] = $state->asString();
            }
        }

        return $out;
    }
}

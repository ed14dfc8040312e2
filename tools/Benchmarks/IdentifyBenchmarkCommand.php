<?php

namespace Tools\Benchmarks;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Stations\Identification\Queries\LearnedClues;
use App\Stations\Identification\Queries\VariantModel;
use Illuminate\Console\Command;
use Yard\Core\BadInput;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\Ranking;
use Yard\Core\Evidence\Reliability;
use Yard\Core\Life\FailureRate;

/**
 * How well cores are identified, on simulated ones: the engine against asking everything, a fixed order, and a decision
 * tree by information gain that believes every clue. Seeds are fixed; the truth is drawn from the demo catalog.
 */
final class IdentifyBenchmarkCommand extends Command
{
    protected $signature = 'bench:identify {--cores=2000} {--seed=20261124} {--sure=0.98} {--taught=500}';

    protected $description = 'Simulated cores with wrong and mixed clues: share identified right, questions and effort';

    private const WRONG_CLUES = 0.05;

    private const MIXED = 0.15;

    /** What the house is worth against the catalog, in cores. */
    private const WEIGHT = 40.0;

    /** @var list<VariantModel> */
    private array $families = [];

    public function handle(): int
    {
        mt_srand((int) $this->option('seed'));
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')), true);
        $this->families = array_map(self::model(...), $pack['families']);
        $this->teach();
        $cores = array_map(fn () => $this->core(), range(1, (int) $this->option('cores')));
        $table = array_map(fn (\Closure $run) => self::measured(array_map($run, $cores)), $this->strategies());
        $this->line(
            sprintf(
                '%d simulated cores, %d %% wrong clues, %d %% mixed, seed %d; reliabilities learned from %d confirmed '
                    .'cores; b and c stop at %.3f, the engine as the desk does',
                count($cores),
                100 * self::WRONG_CLUES,
                100 * self::MIXED,
                $this->option('seed'),
                $this->option('taught'),
                $this->option('sure'),
            ),
        );
        $this->print($table);
        $beats = fn (string $other): bool => $table['engine']['share'] >= $table[$other]['share'] &&
            $table['engine']['effort'] < $table[$other]['effort'];
        $ok = $beats('b) fixed expert order') && $beats('c) decision tree, no reliabilities');
        $this->line(
            $ok
                ? '  The engine needs less effort than b and c at equal or better accuracy: ok'
                : '  OVER: the engine does not beat b and c',
        );

        return $ok ? 0 : 1;
    }

    /** @param  array<string, mixed>  $family  of the pack */
    private static function model(array $family): VariantModel
    {
        return new VariantModel(
            collect($family['features'])->map(
                fn (array $s) => new FamilySpec(['code' => $s['code'], 'body' => $s['body']]),
            ),
            collect($family['variants'])->map(
                fn (array $v) => new Variant([
                    'code' => $v['code'],
                    'prior' => $v['prior'],
                    'expect' => $v['expect'],
                ]),
            ),
        );
    }

    /**
     * @return array<string, \Closure(array{family: int, truth: string, clues: array<string, string|float>}): array{
     *     right: bool, questions: int, effort: float}>
     */
    private function strategies(): array
    {
        return [
            'engine' => fn (array $c) => $this->identify(
                $c,
                fn (array $next, VariantModel $f) => (string) array_key_first($f->order($next)),
                null,
                false,
                true,
            ),
            'a) every clue' => fn (array $c) => $this->everything($c),
            'b) fixed expert order' => fn (array $c) => $this->identify(
                $c,
                fn (array $next, VariantModel $f) => $f->features
                    ->pluck('code')
                    ->first(fn (string $code) => in_array($code, array_column($next, 'feature'), true)),
                null,
                false,
            ),
            'c) decision tree, no reliabilities' => fn (array $c) => $this->identify(
                $c,
                fn (array $next) => collect($next)->sortByDesc(fn (NextLook $n) => $n->gainBits)->first()->feature,
                1.0,
                true,
            ),
        ];
    }

    /**
     * @param  list<array{right: bool, questions: int, effort: float}>  $results
     * @return array{share: float, lower: float, upper: float, questions: float, effort: float}
     */
    private static function measured(array $results): array
    {
        $right = count(array_filter($results, fn (array $r) => $r['right']));
        $interval = FailureRate::ofUnits($right, count($results));

        return [
            'share' => $right / count($results),
            'lower' => $interval->lower,
            'upper' => $interval->upper,
            'questions' => array_sum(array_column($results, 'questions')) / count($results),
            'effort' => array_sum(array_column($results, 'effort')) / count($results),
        ];
    }

    /**
     * @param  array<string, array{share: float, lower: float, upper: float, questions: float, effort: float}>  $table
     */
    private function print(array $table): void
    {
        $this->line(sprintf('  %-36s %-26s %10s %8s', '', 'identified right (95 %)', 'questions', 'effort'));
        foreach ($table as $name => $r) {
            $this->line(
                sprintf(
                    '  %-36s %5.1f %% (%4.1f to %4.1f)     %10.2f %8.2f',
                    $name,
                    100 * $r['share'],
                    100 * $r['lower'],
                    100 * $r['upper'],
                    $r['questions'],
                    $r['effort'],
                ),
            );
        }
    }

    /** The reliabilities the house would have learned from so many confirmed cores, as the identification desk does. */
    private function teach(): void
    {
        $cases = [];
        for ($i = 0; $i < (int) $this->option('taught'); $i++) {
            $core = $this->core();
            $family = $this->families[$core['family']];
            $expect = $family->variants->firstWhere('code', $core['truth'])->expect;
            foreach ($family->features as $feature) {
                $expected = $expect[$feature->code] ?? null;
                if ($expected !== null && isset($feature->body['values'])) {
                    $share = ($expected[$core['clues'][$feature->code]] ?? 0.0) / array_sum($expected);
                    $cases[$core['family']][$feature->code][] = [min(1.0, $share), count($feature->body['values'])];
                }
            }
        }
        foreach ($this->families as $f => $family) {
            $learned = $family->features
                ->filter(fn (FamilySpec $s) => count($s->body['values'] ?? []) >= 2)
                ->keyBy('code')
                ->map(fn (FamilySpec $s) => self::learned($s, $cases[$f][$s->code] ?? []));
            $this->families[$f] = $family->learning(new LearnedClues(true, self::WEIGHT, [], $learned->all()));
        }
    }

    /**
     * @param  list<array{float, int}>  $cases
     * @return array{reliability: float, cases: int}
     */
    private static function learned(FamilySpec $feature, array $cases): array
    {
        $found = Reliability::learn((float) $feature->body['reliability'], self::WEIGHT, $cases);

        return ['reliability' => $found->share, 'cases' => $found->cases];
    }

    /** @return array{family: int, truth: string, clues: array<string, string|float>} */
    private function core(): array
    {
        $family = mt_rand(0, count($this->families) - 1);
        $features = $this->families[$family]->features;
        $variants = $this->families[$family]->variants;
        $truth = $this->pick($variants->pluck('prior', 'code')->map(fn ($p) => (float) $p)->all());
        $expect = $variants->firstWhere('code', $truth)->expect;
        if ($this->chance() < self::MIXED) {
            // One part of another variant sits on it; which one is drawn among the parts the catalog can tell apart.
            $other = $variants->reject(fn (Variant $v) => $v->code === $truth)->values();
            $other = $other[mt_rand(0, $other->count() - 1)];
            $foreign = $features[mt_rand(0, $features->count() - 1)]->code;
            isset($other->expect[$foreign]) && ($expect[$foreign] = $other->expect[$foreign]);
        }
        $clues = [];
        foreach ($features as $feature) {
            $clues[$feature->code] = $this->clue($feature, $expect[$feature->code] ?? null);
        }

        return ['family' => $family, 'truth' => $truth, 'clues' => $clues];
    }

    /** What is seen of one part: what the variant lets expect, now and then something else. */
    private function clue(FamilySpec $feature, mixed $expect): string|float
    {
        $wrong = $this->chance() < self::WRONG_CLUES || $expect === null;
        if (($feature->body['kind'] ?? '') !== 'number') {
            $values = $feature->body['values'];

            return $wrong ? $values[mt_rand(0, count($values) - 1)] : $this->pick($expect);
        }
        [$low, $high] = $feature->body['range'];
        if ($wrong) {
            return $low + $this->chance() * ($high - $low);
        }
        $spread = sqrt($expect['sd'] ** 2 + $feature->body['tolerance'] ** 2 / 3);

        return min($high, max($low, $expect['mean'] + $this->normal() * $spread));
    }

    /**
     * @param  array{family: int, truth: string, clues: array<string, string|float>}  $core
     * @param  callable(list<NextLook>, VariantModel): string  $choose
     * @return array{right: bool, questions: int, effort: float}
     */
    private function identify(
        array $core,
        callable $choose,
        ?float $reliability,
        bool $stopWhenImpossible,
        bool $stopLikeTheDesk = false,
    ): array {
        $family = $this->families[$core['family']];
        $asked = [];
        $effort = 0.0;
        $result = self::rank($family, $asked, $reliability);
        while (
            $stopLikeTheDesk
                ? ! $family->enough($result)
                : $result->next !== [] && $result->hypotheses[0]->posterior < (float) $this->option('sure')
        ) {
            $feature = $choose($result->next, $family);
            $asked[$feature] = $core['clues'][$feature];
            $effort += $family->effort($feature);
            try {
                $result = self::rank($family, $asked, $reliability);
            } catch (BadInput $e) {
                // A tree that believes everything has no leaf for this: it stays with the leader it had.
                if (! $stopWhenImpossible) {
                    throw $e;
                }
                break;
            }
        }

        return [
            'right' => $result->hypotheses[0]->id === $core['truth'],
            'questions' => count($asked),
            'effort' => $effort,
        ];
    }

    /**
     * @param  array{family: int, truth: string, clues: array<string, string|float>}  $core
     * @return array{right: bool, questions: int, effort: float}
     */
    private function everything(array $core): array
    {
        $family = $this->families[$core['family']];

        return [
            'right' => self::rank($family, $core['clues'], null)->hypotheses[0]->id === $core['truth'],
            'questions' => count($core['clues']),
            'effort' => (float) $family->features->sum(fn (FamilySpec $f) => $f->body['effort']),
        ];
    }

    /** @param  array<string, string|float>  $clues */
    private static function rank(VariantModel $family, array $clues, ?float $reliability): Ranking
    {
        return $family->given(array_map(strval(...), $clues), $reliability);
    }

    /** @param  array<string, float>  $weights */
    private function pick(array $weights): string
    {
        $at = $this->chance() * array_sum($weights);
        foreach ($weights as $key => $weight) {
            if (($at -= $weight) < 0) {
                return (string) $key;
            }
        }

        return (string) array_key_last($weights);
    }

    private function chance(): float
    {
        return mt_rand() / (mt_getrandmax() + 1);
    }

    private function normal(): float
    {
        return sqrt(-2 * log(1 - $this->chance())) * cos(2 * M_PI * $this->chance());
    }
}

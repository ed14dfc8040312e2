<?php

namespace App\Stations\Assembly\Actions;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\PackFit;
use App\Stations\Assembly\Queries\FitProposal;
use App\Stock\Actions\IssueParts;
use App\Stock\Models\HeldPart;
use App\Yard\Models\Build;
use Yard\Core\Quantity\Unit as MeasureUnit;

/** The builder takes one of the proposals: the parts leave the shelf and the predicted clearance is kept. */
final class FitPack
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly FitProposal $propose,
        private readonly IssueParts $stock,
    ) {
    }

    /** @param  list<array{slot: string, part: string, count: int}>  $picks */
    public function fit(
        Build $build,
        string $place,
        string $reading,
        ?string $trialWasher,
        array $picks,
        Person $by,
    ): PackFit {
        $proposal = $this->propose->propose($build, $place, $reading, $trialWasher);
        $choice = self::proposed($proposal['result'], $picks);
        $this->undo($build, $place);
        $taken = array_map(fn (array $p) => ['part' => $p['part'], 'count' => $p['count']], $choice['picks']);
        $this->stock->issue($build, $place, $taken, $by);
        HeldPart::release($build, $place);
        $fit = PackFit::create([
            'build_id' => $build->id,
            'pack' => $place,
            'depth' => MeasureUnit::of($proposal['unit'])->toSi($proposal['depth']),
            'unit' => $proposal['unit'],
            'predicted' => $choice['clearance'],
            'fitted_by' => $by->id,
            'fitted_at' => now(),
        ]);
        $parts = Part::query()->whereIn('number', array_column($choice['picks'], 'part'))->pluck('id', 'number');
        OrderedRows::write(
            $fit->picks(),
            array_map(
                fn (array $p) => ['slot' => $p['slot'], 'part_id' => $parts[$p['part']], 'count' => $p['count']],
                $choice['picks'],
            ),
        );
        $this->ledger->onUnit($build->unit, 'pack.fitted', [
            'place' => $place,
            'reading' => $reading,
            'picks' => $choice['picks'],
            'predicted' => $choice['clearance'],
            'unit' => $proposal['unit'],
        ]);

        return $fit;
    }

    /**
     * The proposal that takes just these parts.
     *
     * @param  array<string, mixed>  $result  of fit.stack
     * @param  list<array{slot: string, part: string, count: int}>  $picks
     * @return array{clearance: float, picks: list<array{slot: string, part: string, count: int}>}
     */
    private static function proposed(array $result, array $picks): array
    {
        $key = fn (array $list) => collect($list)
            ->map(fn (array $p) => "{$p['slot']}|{$p['part']}|{$p['count']}")
            ->sort()
            ->values()
            ->all();
        foreach ([...isset($result['best']) ? [$result['best']] : [], ...$result['alternatives']] as $candidate) {
            if ($key($candidate['picks']) === $key($picks)) {
                return $candidate;
            }
        }
        throw Refusal::at(
            '/answer/picks',
            'These parts do not bring the clearance into its window with what is on the shelf now. Take one of the '
                .'proposals.',
        );
    }

    /** What was chosen goes back to the shelf. */
    public function undo(Build $build, string $place): void
    {
        PackFit::query()
            ->where('build_id', $build->id)
            ->where('pack', $place)
            ->whereNull('undone_at')
            ->get()
            ->each(fn (PackFit $fit) => $fit->update(['undone_at' => now()]));
        $this->stock->takeBack($build, $place);
    }
}

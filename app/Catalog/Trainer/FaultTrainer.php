<?php

namespace App\Catalog\Trainer;

use App\Catalog\Models\Family;
use App\Kernel\Refusal;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use Yard\Core\BadInput;
use Yard\Core\Faults\FaultDeal;

/**
 * A round of finding a hidden fault. Nothing is stored: the round is a sealed text that the trainee's page carries, so
 * that nobody can look into it and a reload does not lose it.
 *
 * @phpstan-type Look array{kind: string, what: string, state: string, effort: float}
 * @phpstan-type Round array{family: string, seed: int, two: bool, seen: list<Look>}
 */
final class FaultTrainer
{
    private const SEEDS = 1_000_000_000;

    /** @return array<string, mixed> */
    public function deal(string $family, bool $two): array
    {
        Family::query()->where('code', $family)->exists() ||
            throw Refusal::at('/family', "There is no family \"$family\".");
        $round = ['family' => $family, 'seed' => random_int(0, self::SEEDS), 'two' => $two, 'seen' => []];

        $unit = self::unit($round);

        return ['looks' => $unit->looks(), 'causes' => $unit->causes()] + self::shown($round);
    }

    /** @return array<string, mixed> */
    public function look(string $sealed, string $kind, string $what): array
    {
        $round = self::opened($sealed);
        $taken = array_filter($round['seen'], fn (array $s): bool => $s['kind'] === $kind && $s['what'] === $what);
        $taken === [] || throw new Refusal('That was looked at already: it shows the same again.', 409);
        try {
            $round['seen'][] = ['kind' => $kind, 'what' => $what] + self::unit($round)->shows($kind, $what);
        } catch (BadInput $e) {
            throw Refusal::at($e->path, $e->getMessage());
        }

        return self::shown($round);
    }

    /** @return array<string, mixed> */
    public function name(string $sealed, string $element, string $fault): array
    {
        $round = self::opened($sealed);
        try {
            return self::unit($round)->judged($round['seen'], $element, $fault) + self::shown($round);
        } catch (BadInput $e) {
            throw Refusal::at($e->path, $e->getMessage());
        }
    }

    /** @param  Round  $round */
    private static function unit(array $round): FaultDeal
    {
        $chart = Family::query()->where('code', $round['family'])->firstOrFail()->chart();

        return new FaultDeal($chart, $round['seed'], $round['two']);
    }

    /**
     * @param  Round  $round
     * @return array<string, mixed>
     */
    private static function shown(array $round): array
    {
        return [
            'round' => Crypt::encryptString((string) json_encode($round)),
            'seen' => $round['seen'],
            'effort' => array_sum(array_column($round['seen'], 'effort')),
        ];
    }

    /** @return Round */
    private static function opened(string $sealed): array
    {
        try {
            return json_decode(Crypt::decryptString($sealed), true, 8, JSON_THROW_ON_ERROR);
        } catch (DecryptException) {
            throw Refusal::at('/round', 'This round is none of ours: deal a new one.');
        }
    }
}

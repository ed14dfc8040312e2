<?php

namespace App\Catalog\Trainer;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Kernel\Refusal;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use Yard\Core\Inspection\PackDeal;

/** A pack of a family laid out to look at: what is wrong with it. Nothing is stored: the round is a sealed text. */
final class PackTrainer
{
    private const SEEDS = 1_000_000_000;

    /** What a fixed plate that gives way is called in the packs. */
    private const GIVES = '/wave|cushion/';

    /** @return array<string, mixed> */
    public function deal(string $code): array
    {
        $family = Family::query()->where('code', $code)->first() ??
            throw Refusal::at('/family', "There is no family \"$code\".");
        $packs = FamilySpec::bodies($family->id, 'pack');
        $packs !== [] || throw Refusal::at('/family', "The catalog has no packs of \"$code\".");
        $pack = $packs[random_int(0, count($packs) - 1)];
        $round = self::roundOf($pack, random_int(0, self::SEEDS));
        $deal = self::dealt($round);

        return [
            'round' => Crypt::encryptString((string) json_encode($round)),
            'name' => $pack['name'],
            'parts' => array_map(
                fn (array $p): array => ['name' => $p['name'], 'count' => $p['count'] ?? $p['pick']],
                [...$pack['fixed'], ...$pack['slots']],
            ),
            'stack' => $deal->stack,
            'choices' => $deal->choices(),
        ];
    }

    /** @return array{right: bool, was: string, sentence: string} */
    public function name(string $sealed, string $choice): array
    {
        try {
            $round = json_decode(Crypt::decryptString($sealed), true, 8, JSON_THROW_ON_ERROR);
        } catch (DecryptException) {
            throw Refusal::at('/round', 'This round is none of ours: deal a new one.');
        }
        $deal = self::dealt($round);
        in_array($choice, $deal->choices(), true) ||
            throw Refusal::at('/choice', 'That cannot be wrong with this pack.');

        return [
            'right' => $choice === $deal->wrong,
            'was' => $deal->wrong,
            'sentence' => PackDeal::WRONG[$deal->wrong],
        ];
    }

    /**
     * @param  array<string, mixed>  $pack
     * @return array{pairs: int, wave: bool, end: bool, seed: int}
     */
    private static function roundOf(array $pack, int $seed): array
    {
        $fixed = array_column($pack['fixed'], 'count', 'name');
        $slots = array_column($pack['slots'], 'pick', 'name');

        return [
            'pairs' => max(2, (int) ($fixed['friction plates'] ?? 2)),
            'wave' => preg_grep(self::GIVES, array_keys($fixed)) !== [],
            'end' => preg_grep('/plate|first steel/', array_keys($slots)) !== [],
            'seed' => $seed,
        ];
    }

    /** @param  array{pairs: int, wave: bool, end: bool, seed: int}  $round */
    private static function dealt(array $round): PackDeal
    {
        return new PackDeal($round['pairs'], $round['wave'], $round['end'], $round['seed']);
    }
}

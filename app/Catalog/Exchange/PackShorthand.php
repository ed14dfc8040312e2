<?php

namespace App\Catalog\Exchange;

/**
 * Packs are written by hand: what repeats is said once. Entries need no `body`, sources come from the `defaults` of
 * their family, an operation without `after` follows the one before it, a proof is a few words, and a text that begins
 * with "=" names one of the pack's `phrases`. What comes out is the long form that the schema describes.
 */
final class PackShorthand
{
    private const HEAD = ['code', 'name', 'body', 'source', 'edition', 'confidence', 'claims', 'signed'];

    private const LISTS = [
        'features',
        'packs',
        'endPlays',
        'fasteners',
        'airChecks',
        'benchTests',
        'teardown',
        'assembly',
        'findings',
        'testPrograms',
        'converters',
    ];

    /** @var array<string, string> */
    private array $phrases = [];

    public static function expand(\stdClass $pack): void
    {
        (new self())->pack($pack);
    }

    private function pack(\stdClass $pack): void
    {
        $this->phrases = array_filter((array) ($pack->phrases ?? []), is_string(...));
        unset($pack->phrases);
        foreach (is_array($pack->families ?? null) ? $pack->families : [] as $family) {
            $family instanceof \stdClass && $this->family($family);
        }
        foreach (is_array($pack->vocabularies ?? null) ? $pack->vocabularies : [] as $vocabulary) {
            $this->list($vocabulary->body->operations ?? null);
        }
    }

    /** Operations the shop has for every family. */
    private function list(mixed $operations): void
    {
        $before = null;
        foreach (is_array($operations) ? $operations : [] as $operation) {
            $this->operation($operation, $before);
            $before = $operation->code ?? null;
        }
    }

    private function family(\stdClass $family): void
    {
        $defaults = (array) ($family->defaults ?? []);
        unset($family->defaults);
        foreach (self::LISTS as $list) {
            $before = null;
            foreach (is_array($family->{$list} ?? null) ? $family->{$list} : [] as $entry) {
                if (! $entry instanceof \stdClass) {
                    continue;
                }
                $this->entry($entry, $defaults);
                if ($list === 'teardown' || $list === 'assembly') {
                    $this->operation($entry->body, $before);
                    $before = $entry->code ?? null;
                }
            }
        }
    }

    /** @param  array<string, mixed>  $defaults */
    private function entry(\stdClass $entry, array $defaults): void
    {
        if (! isset($entry->body)) {
            $body = array_diff_key((array) $entry, array_flip(self::HEAD));
            foreach (array_keys($body) as $field) {
                unset($entry->{$field});
            }
            $entry->body = (object) $body;
        }
        foreach ($defaults as $field => $value) {
            $entry->{$field} ??= $value;
        }
    }

    private function operation(mixed $body, mixed $before): void
    {
        if (! $body instanceof \stdClass) {
            return;
        }
        $body->after ??= is_string($before) ? [$before] : [];
        foreach ((array) $body as $field => $text) {
            if (is_string($text) && str_starts_with($text, '=')) {
                $body->{$field} = $this->phrases[substr($text, 1)] ?? $text;
            }
        }
        foreach ([$body, ...self::changes($body)] as $with) {
            if ($with instanceof \stdClass && is_array($with->proofs ?? null)) {
                $with->proofs = array_map(self::proof(...), $with->proofs);
            }
        }
    }

    /** @return list<mixed> what house rules and options make of it */
    private static function changes(\stdClass $body): array
    {
        $choices = array_map(
            fn (mixed $of): array => array_values((array) $of),
            array_values((array) ($body->byRule ?? [])),
        );

        return [...array_merge(...$choices), ...array_values((array) ($body->byOption ?? []))];
    }

    /** "torque pump", "photo pan before wiping", "timer 30 min soaking", or the long form. */
    private static function proof(mixed $proof): mixed
    {
        if ($proof instanceof \stdClass && count((array) $proof) === 1 && isset($proof->count)) {
            return (object) ['kind' => 'count', 'counts' => $proof->count];
        }
        if (! is_string($proof)) {
            return $proof;
        }
        [$kind, $of] = explode(' ', $proof, 2) + [1 => ''];
        if ($kind === 'timer' && preg_match('/^([0-9.]+) (min|h) (.+)$/', $of, $found) === 1) {
            return (object) [
                'kind' => $kind,
                'of' => $found[3],
                'minutes' => (float) $found[1] * ($found[2] === 'h' ? 60 : 1),
            ];
        }

        return (object) array_filter(['kind' => $kind, 'of' => $of], fn (string $s) => $s !== '');
    }
}

<?php

namespace Tests\Feature;

use App\Catalog\Exchange\PackShorthand;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Five families that really differ: every pack, part, joint and bolt group of each has its work and its look. */
final class DemoContentTest extends TestCase
{
    private static ?\stdClass $pack = null;

    private static function pack(): \stdClass
    {
        if (self::$pack === null) {
            self::$pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'));
            PackShorthand::expand(self::$pack);
        }

        return self::$pack;
    }

    /** @return array<string, array{string}> */
    public static function families(): array
    {
        return ['RD4' => ['RD4'], 'OV3' => ['OV3'], 'LP6' => ['LP6'], 'TX6' => ['TX6'], 'GV5' => ['GV5']];
    }

    private static function family(string $code): \stdClass
    {
        return array_column(self::pack()->families, null, 'code')[$code];
    }

    /** @return list<string> "kind of", of every proof of a bench */
    private static function proofs(\stdClass $family, string $bench): array
    {
        return array_merge(...array_map(
            fn (\stdClass $o) => array_map(fn (\stdClass $p) => "$p->kind ".($p->of ?? ''), $o->body->proofs ?? []),
            $family->{$bench},
        ));
    }

    #[DataProvider('families')]
    public function test_each_has_its_work_and_its_looks(string $code): void
    {
        $family = self::family($code);
        $this->assertGreaterThanOrEqual(45, count($family->teardown));
        $this->assertGreaterThanOrEqual(50, count($family->assembly));
        $this->assertGreaterThanOrEqual(60, count($family->findings));
        $asked = array_filter(self::proofs($family, 'teardown'), fn (string $p) => str_starts_with($p, 'condition '));
        $this->assertSame(array_values(array_unique($asked)), array_values($asked), 'no part is looked at twice');
    }

    #[DataProvider('families')]
    public function test_every_element_bolt_group_and_joint_is_proven_in_assembly(string $code): void
    {
        $family = self::family($code);
        $proofs = self::proofs($family, 'assembly');
        foreach ((array) $family->body->power->capacities as $element => $capacity) {
            if ($capacity->kind === 'clutch') {
                $this->assertContains("fit pack:$element", $proofs);
                $this->assertContains("reading pack:$element", $proofs);
            }
            $capacity->kind === 'fixed' || $this->assertContains("air $element", $proofs);
        }
        foreach ($family->endPlays as $play) {
            $this->assertContains("fit end-play:$play->code", $proofs);
            $this->assertContains("reading end-play:$play->code", $proofs);
        }
        $this->assertGreaterThan(1, count($family->endPlays), 'front and rear');
        foreach ($family->fasteners as $bolts) {
            $this->assertContains("torque $bolts->code", $proofs);
            $this->assertSame($bolts->body->count, array_sum((array) $bolts->body->lengths));
        }
        $numbers = array_filter($proofs, fn (string $p) => preg_match('/^(fit|torque|air) /', $p) === 1);
        $this->assertSame(array_unique($numbers), $numbers, 'each number is taken once');
    }

    #[DataProvider('families')]
    public function test_every_friction_pack_is_looked_at_plate_by_plate(string $code): void
    {
        $family = self::family($code);
        $plates = array_filter(array_map(fn (\stdClass $f) => $f->body->plates ?? null, $family->findings));
        $packs = array_keys(array_filter(
            (array) $family->body->power->capacities,
            fn (\stdClass $c) => $c->kind === 'clutch',
        ));
        $this->assertEqualsCanonicalizing($packs, $plates);
    }

    public function test_the_magnesium_case_gets_aluminium_bolts_and_no_others_do(): void
    {
        foreach (self::pack()->families as $family) {
            foreach ($family->fasteners as $bolts) {
                $light = $bolts->body->into === 'magnesium';
                $this->assertSame($light, $bolts->body->metal === 'aluminium', "$family->code $bolts->code");
                $light && $this->assertTrue($bolts->body->singleUse);
            }
        }
        $light = array_filter(self::family('TX6')->fasteners, fn (\stdClass $b) => $b->body->into === 'magnesium');
        $this->assertCount(5, $light);
        $asked = self::proofs(self::family('TX6'), 'assembly');
        foreach ($light as $bolts) {
            $this->assertContains("metal $bolts->code", $asked);
        }
    }

    /** Any order the graph allows takes everything off the drawing: a second sort, drawn by lot, finds the same. */
    #[DataProvider('families')]
    public function test_each_can_be_taken_apart_completely_in_any_order(string $code): void
    {
        $family = self::family($code);
        $drawn = array_column(
            array_filter(
                $family->body->section->parts,
                fn (\stdClass $p) => $p->kind !== 'housing' && ! in_array($p->code, ['case', 'tag'], true),
            ),
            'code',
        );
        foreach (range(1, 12) as $seed) {
            mt_srand($seed);
            [$done, $off] = [[], []];
            $open = array_column(array_map(fn ($o) => (array) $o, $family->teardown), null, 'code');
            while ($open !== []) {
                $may = array_filter($open, fn (array $o): bool => self::mayBegin($o['body'], $done));
                if ($may === []) {
                    break;
                }
                $next = array_values($may)[mt_rand(0, count($may) - 1)];
                unset($open[$next['code']]);
                $done[$next['code']] = true;
                array_push($off, ...$next['body']->removes ?? []);
            }
            $this->assertSame([], array_keys($open), 'every operation comes to its turn');
            $this->assertSame([], array_values(array_diff($drawn, $off)), 'nothing is left in the drawing');
        }
    }

    /** @param  array<string, true>  $done */
    private static function mayBegin(\stdClass $body, array $done): bool
    {
        $any = array_filter(
            $body->afterAny ?? [],
            fn (array $group) => array_intersect($group, array_keys($done)) === [],
        );

        return $any === [] && array_diff($body->after, array_keys($done)) === [];
    }

    public function test_no_two_families_share_over_a_third_of_their_traps_and_orders(): void
    {
        $said = [];
        foreach (self::pack()->families as $family) {
            foreach ([...$family->teardown, ...$family->assembly] as $o) {
                $before = array_map(fn (string $b) => "$b before $o->code", $o->body->after);
                $said[$family->code] = [...$said[$family->code] ?? [], ...$before];
                isset($o->body->trap) && $said[$family->code][] = $o->body->trap;
            }
        }
        foreach ($said as $one => $ofOne) {
            foreach ($said as $other => $ofOther) {
                $shared = count(array_intersect(array_unique($ofOne), $ofOther)) / count(array_unique($ofOne));
                $one === $other || $this->assertLessThanOrEqual(1 / 3, $shared, "$one and $other");
            }
        }
    }

    public function test_no_trap_is_said_twice(): void
    {
        $traps = [];
        foreach (self::pack()->families as $family) {
            foreach ([...$family->teardown, ...$family->assembly] as $o) {
                isset($o->body->trap) && $traps[] = $o->body->trap;
            }
        }
        $again = array_filter(array_count_values($traps), fn (int $n) => $n > 2);
        $this->assertSame([], $again, 'at most once at each bench of one family');
    }
}

<?php

namespace Tests\Feature;

use App\Catalog\Exchange\PackShorthand;
use App\Catalog\Exchange\PackUpgrade;
use App\Catalog\Read\OperationsOfOld;
use App\Work\OperationSpec;
use App\Work\ProofSpec;
use PHPUnit\Framework\TestCase;

/** How operations are written: short by hand, long in the schema, and as they were before they had proofs. */
final class PackFormatTest extends TestCase
{
    private static function expanded(array $family, array $phrases = []): \stdClass
    {
        $pack = json_decode((string) json_encode(['phrases' => (object) $phrases, 'families' => [$family]]));
        PackShorthand::expand($pack);

        return $pack;
    }

    public function test_what_repeats_is_said_once(): void
    {
        $pack = self::expanded([
            'defaults' => ['source' => 'notes', 'edition' => '2nd', 'confidence' => 'documented'],
            'teardown' => [
                ['code' => 'a', 'name' => 'A', 'tool' => 'pick', 'caution' => '=lift'],
                ['code' => 'b', 'name' => 'B', 'source' => 'own', 'caution' => '=unknown'],
                ['code' => 'c', 'name' => 'C', 'body' => ['after' => []]],
            ],
        ], ['lift' => 'Hoist or two people.']);
        $this->assertFalse(isset($pack->phrases));
        $this->assertFalse(isset($pack->families[0]->defaults));
        [$a, $b, $c] = $pack->families[0]->teardown;
        $this->assertEquals((object) ['tool' => 'pick', 'caution' => 'Hoist or two people.', 'after' => []], $a->body);
        $this->assertSame(['notes', 'documented'], [$a->source, $a->confidence]);
        $this->assertSame(['own', '2nd'], [$b->source, $b->edition], 'what an entry says itself counts');
        $this->assertSame(['a'], $b->body->after, 'it comes after the one before it');
        $this->assertSame('=unknown', $b->body->caution, 'a phrase that is not there stays to be seen');
        $this->assertSame([], $c->body->after, 'unless it says otherwise');
    }

    public function test_a_proof_is_a_few_words(): void
    {
        $pack = self::expanded(['assembly' => [[
            'code' => 'a',
            'name' => 'A',
            'proofs' => [
                'torque pump',
                'photo pan before wiping',
                'timer 30 min soaking',
                'timer 12 h curing',
                'done',
                ['count' => ['pump bolts' => 7]],
                ['kind' => 'scan', 'of' => 'tray', 'pattern' => '^T-'],
            ],
            'byRule' => ['soak-time' => ['10 min' => ['proofs' => ['timer 10 min soaking']]]],
            'byOption' => ['wave-flat' => ['proofs' => ['fit pack:C3']]],
        ]]]);
        $body = $pack->families[0]->assembly[0]->body;
        $this->assertEquals([
            (object) ['kind' => 'torque', 'of' => 'pump'],
            (object) ['kind' => 'photo', 'of' => 'pan before wiping'],
            (object) ['kind' => 'timer', 'of' => 'soaking', 'minutes' => 30.0],
            (object) ['kind' => 'timer', 'of' => 'curing', 'minutes' => 720.0],
            (object) ['kind' => 'done'],
            (object) ['kind' => 'count', 'counts' => (object) ['pump bolts' => 7]],
            (object) ['kind' => 'scan', 'of' => 'tray', 'pattern' => '^T-'],
        ], $body->proofs);
        $this->assertEquals(10.0, $body->byRule->{'soak-time'}->{'10 min'}->proofs[0]->minutes);
        $this->assertSame('pack:C3', $body->byOption->{'wave-flat'}->proofs[0]->of);
    }

    public function test_the_long_form_stays_as_it_is(): void
    {
        $long = ['code' => 'a', 'name' => 'A', 'body' => ['after' => ['b'], 'proofs' => [['kind' => 'done']]]];
        $sourced = $long + ['source' => 's', 'edition' => '', 'confidence' => 'recalled'];
        $pack = self::expanded(['teardown' => [$sourced]]);
        $before = json_encode($pack);
        PackShorthand::expand($pack);
        $this->assertSame($before, json_encode($pack));
    }

    public function test_steps_of_version_3_become_operations_and_what_was_measured_too(): void
    {
        $step = ['source' => 's', 'edition' => 'e', 'confidence' => 'recalled'];
        $pack = json_decode((string) json_encode(['version' => 3, 'families' => [[
            'teardown' => [
                ['code' => 'pan', 'name' => 'Pan', 'body' => ['needs' => ['outside'], 'tool' => 'x']] + $step,
            ],
            'assembly' => [
                ['code' => 'pump', 'name' => 'Pump', 'body' => ['needs' => [], 'counts' => ['bolts' => 7]]] + $step,
            ],
            'packs' => [['code' => 'C1', 'name' => 'Forward pack']],
            'endPlays' => [['code' => 'front', 'name' => 'Front end play']],
            'airChecks' => [['code' => 'C1', 'name' => 'Air check']],
            'fasteners' => [['code' => 'pump', 'name' => 'Pump bolts']],
        ]]]));
        PackUpgrade::upgrade($pack);
        $family = $pack->families[0];
        $this->assertEquals((object) ['tool' => 'x', 'after' => ['outside']], $family->teardown[0]->body);
        $this->assertSame(7, $family->assembly[0]->body->proofs[0]->counts->bolts);
        $this->assertSame(
            ['pump', 'measure-pack-C1', 'measure-end-play-front', 'measure-air-C1', 'measure-torque-pump'],
            array_column($family->assembly, 'code'),
        );
        $this->assertSame(['fit', 'reading'], array_column($family->assembly[1]->body->proofs, 'kind'));
        $this->assertSame('e', $family->assembly[4]->edition);
    }

    public function test_an_order_frozen_before_is_read_in_todays_form(): void
    {
        $spec = [
            'assembly' => [['code' => 'pump', 'name' => 'Pump', 'needs' => [], 'counts' => ['bolts' => 7]]],
            'packs' => [['code' => 'C1', 'name' => 'Forward pack']],
        ];
        $operations = array_map(OperationSpec::read(...), OperationsOfOld::frozen($spec));
        $this->assertSame(['pump', 'measure-pack-C1'], array_map(fn (OperationSpec $o) => $o->code, $operations));
        $this->assertSame(
            ['count', 'fit-pack-c1', 'reading-pack-c1'],
            array_map(
                fn (ProofSpec $p) => $p->code,
                array_merge(...array_map(fn (OperationSpec $o) => $o->proofs, $operations)),
            ),
        );
        $new = ['assembly' => [['code' => 'a', 'name' => 'A', 'after' => []]], 'packs' => $spec['packs']];
        $this->assertCount(1, OperationsOfOld::frozen($new), 'what is new is taken as it is');
        $this->assertSame([], OperationsOfOld::frozen([]));
    }

    public function test_an_operation_that_only_waits_is_still_said_to_be_done(): void
    {
        $timer = ['kind' => 'timer', 'of' => 'soaking', 'minutes' => 30];
        $kinds = fn (array $proofs) => array_map(
            fn (ProofSpec $p) => $p->kind->value,
            OperationSpec::read(['code' => 'a', 'name' => 'A', 'proofs' => $proofs])->proofs,
        );
        $this->assertSame(['done'], $kinds([]));
        $this->assertSame(['timer', 'done'], $kinds([$timer]));
        $this->assertSame(['count'], $kinds([['kind' => 'count', 'counts' => ['balls' => 8]]]));
    }

    public function test_what_lies_between_two_operations_of_a_job_falls_out(): void
    {
        $read = fn (string $code, array $after, array $any = []) => OperationSpec::read([
            'code' => $code,
            'name' => $code,
            'after' => $after,
            'afterAny' => $any,
        ]);
        $all = [
            'a' => $read('a', []),
            'b' => $read('b', ['a']),
            'c' => $read('c', ['b']),
            'd' => $read('d', ['c'], [['b', 'a']]),
        ];
        $in = array_flip(['a', 'd']);
        $left = $all['d']->within($all, $in);
        $this->assertSame([['a'], [['a']]], [$left->after, $left->afterAny]);
        $alone = $all['d']->within($all, ['d' => 0]);
        $this->assertSame([[], []], [$alone->after, $alone->afterAny]);
    }
}

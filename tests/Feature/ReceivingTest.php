<?php

namespace Tests\Feature;

use App\Yard\Models\Unit;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

final class ReceivingTest extends TestCase
{
    public function test_a_core_is_priced_line_by_line(): void
    {
        // lowest core charge of the family 380, dust shield 28.50, 1.5 h at 100
        $this->receive()
            ->assertCreated()
            ->assertJsonPath('credit', 380 - 28.5 - 150)
            ->assertJsonPath('station', 'identification');
        $this->assertSame('98000 km', $this->unit()->odometer_typed);
    }

    public static function badIntakes(): array
    {
        return [
            'VIN with a wrong check digit' => [['vin' => '3XYRN25D8A8654321'], '/vin', 'check digit'],
            'short VIN' => [['vin' => '3XYRN25D9'], '/vin', '17 characters'],
            'letter O' => [['vin' => '3XYRN25D9A8654O21'], '/vin', 'never I, O or Q'],
            'odometer in the wrong kind' => [['odometer' => '12 psi'], '/odometer', 'pressure'],
            'impossible odometer' => [['odometer' => '99999999 km'], '/odometer', '3,000,000'],
            'decimal comma' => [['odometer' => '98,5 km'], '/odometer', 'point'],
            'weight as torque' => [['weight' => '80 Nm'], '/weight', 'torque'],
            'unknown part' => [['missing' => [['part' => 'NOPE']]], '/missing/0/part', 'no part'],
            'unknown customer' => [['customer' => 'NOBODY'], '/customer', 'no customer'],
            'negative hours' => [['repairHours' => -1], '/repairHours', 'at least 0'],
            'grade E' => [['grade' => 'E'], '/grade', 'grade'],
            'own unit without customer' => [
                ['ownership' => 'customer', 'customer' => null],
                '/customer',
                'needs the customer',
            ],
            'odd tag' => [['coreTag' => 'c 1!'], '/coreTag', 'capital letters'],
        ];
    }

    #[DataProvider('badIntakes')]
    public function test_bad_input_is_named_at_its_field_and_nothing_is_stored(
        array $change,
        string $pointer,
        string $part,
    ): void {
        $this->assertProblem($this->receive('C-9001', $change), 422, $part, $pointer);
        $this->assertSame(0, Unit::query()->count());
    }

    public function test_a_tag_is_used_once(): void
    {
        $this->receive()->assertCreated();
        $this->assertProblem($this->receive(), 422, 'already on another core', '/coreTag');
    }

    public function test_missing_complaint_and_missing_diagnosis_hold_the_unit(): void
    {
        $card = $this->receive('C-9001', ['complaint' => '', 'sender' => 'shop'])->assertCreated();
        $this->assertSame(['complaint-missing', 'diagnosis-missing'], array_column($card->json('holds'), 'kind'));
        $hold = $card->json('holds.0.id');
        $this->as('receiver')
            ->write("/holds/$hold/lift", ['reason' => 'x'])
            ->assertForbidden();
        $this->as('manager')
            ->write("/holds/$hold/lift", ['reason' => 'Owner asked by phone'])
            ->assertOk();
        $this->assertProblem($this->write("/holds/$hold/lift", ['reason' => 'again']), 409, 'already lifted');
    }

    public function test_a_refused_core_earns_nothing_and_is_closed(): void
    {
        $this->assertProblem($this->receive('C-9001', ['grade' => 'X']), 422, 'say why', '/gradeReason');
        $this->receive('C-9001', ['grade' => 'X', 'gradeReason' => 'Burnt out on a lorry fire.'])
            ->assertCreated()
            ->assertJsonPath('credit', 0)
            ->assertJsonPath('station', 'closed');
        $this->receive('C-9002', ['grade' => null, 'flags' => ['caseBroken']])
            ->assertCreated()
            ->assertJsonPath('grade', 'X')
            ->assertJsonPath('receiving.gradeReason', 'The case is broken.');
    }

    public function test_photos_are_checked_and_reencoded_without_location(): void
    {
        $this->receive()->assertCreated();
        $send = fn (UploadedFile $file) => $this->as('receiver')->post(
            '/api/units/C-9001/photos',
            ['photo' => $file, 'place' => 'pan'],
            ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json'],
        );
        $image = imagecreatetruecolor(400, 300);
        ob_start();
        imagejpeg($image);
        $jpeg = (string) ob_get_clean();
        // a hand-made Exif block (orientation 6: turn right) behind the start-of-image marker
        $exif = "Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x06\0\0\0\0\0\0\0";
        $with = substr($jpeg, 0, 2)."\xFF\xE1".pack('n', strlen($exif) + 2).$exif.substr($jpeg, 2);
        $photo = $send(UploadedFile::fake()->createWithContent('a.jpg', $with))->assertCreated();
        $this->assertSame([300, 400], [$photo->json('width'), $photo->json('height')], 'turned upright');
        $stored = (string) file_get_contents(
            $this->get('/api/photos/'.$photo->json('id'))
                ->baseResponse->getFile()
                ->getPathname(),
        );
        $this->assertStringNotContainsString('Exif', $stored);
        $bad = ['not a picture' => 'just text', 'cut off' => substr($jpeg, 0, 60), 'script' => '<?php echo 1;'];
        foreach ($bad as $what => $content) {
            $this->assertProblem(
                $send(UploadedFile::fake()->createWithContent('b.jpg', $content)),
                422,
                'picture',
                '/photo',
            );
        }
        $this->assertProblem($send(UploadedFile::fake()->image('tiny.png', 4, 4)), 422, '16 pixels', '/photo');
    }

    public function test_two_people_on_one_card_are_told_of_each_other(): void
    {
        $this->receive()->assertCreated();
        $intake = fn (int $version, string $rack) => [
            'version' => $version,
            'jobType' => 'rebuild',
            'ownership' => 'exchange',
            'family' => 'RD4',
            'customer' => 'WS-LOW',
            'rack' => $rack,
            'complaint' => 'No third',
            'repairHours' => 0,
            'missing' => [],
            'failedHard' => [],
            'codes' => [],
            'clues' => [],
        ];
        $this->write('/units/C-9001/receiving', $intake(1, 'R1'), null, 'PUT')
            ->assertOk()
            ->assertJsonPath('version', 2);
        $conflict = $this->write('/units/C-9001/receiving', $intake(1, 'R2'), null, 'PUT');
        $this->assertProblem($conflict, 409, 'Somebody else changed');
        $this->assertSame(['R1', 'R2'], [$conflict->json('current.rack'), $conflict->json('yours.rack')]);
        $this->assertSame('R1', $this->unit()->rack);
    }

    public function test_trays_belong_to_one_unit(): void
    {
        $this->receive('C-9001');
        $this->receive('C-9002');
        $this->write('/units/C-9001/trays', [
            'tag' => 'T-1',
            'items' => [['name' => 'check balls', 'count' => 8]],
        ])
            ->assertCreated()
            ->assertJsonPath('trays.0.items.0.count', 8);
        $this->assertProblem(
            $this->write('/units/C-9002/trays', [
                'tag' => 'T-1',
                'items' => [['name' => 'x', 'count' => 1]],
            ]),
            422,
            'another unit',
            '/tag',
        );
    }

    public function test_the_house_rules_give_the_grade_and_another_one_needs_its_reason(): void
    {
        $preview = fn (array $in) => $this->as('receiver')
            ->write(
                '/receiving/credit',
                $in + ['family' => 'RD4', 'missing' => [], 'failedHard' => [], 'repairHours' => 0],
            )
            ->assertOk()
            ->json();
        $this->assertSame('A', $preview([])['proposedGrade']);
        $hard = array_slice(
            array_column(
                collect($this->read('/receiving/form')->json('families'))->firstWhere('code', 'RD4')['hardParts'],
                'number',
            ),
            0,
            4,
        );
        foreach (['A', 'B', 'C', 'C', 'D'] as $n => $grade) {
            $this->assertContains(
                $preview(['failedHard' => array_map(fn (string $p) => ['part' => $p], array_slice($hard, 0, $n))])[
                    'proposedGrade'
                ],
                [$grade, 'D'],
                "$n hard parts lost",
            );
        }
        $this->assertSame('X', $preview(['flags' => ['wrongUnit']])['proposedGrade']);
        $this->assertProblem(
            $this->receive('C-9001', ['grade' => 'A']),
            422,
            'The house rules give grade B',
            '/gradeReason',
        );
        $this->receive('C-9001', ['grade' => 'A', 'gradeReason' => 'Dust shield lies in the van.'])
            ->assertCreated()
            ->assertJsonPath('receiving.proposedGrade', 'B');
    }

    public function test_what_the_walk_round_shows_is_not_asked_again(): void
    {
        $card = $this->receive('C-9001', [
            'observed' => ['connector-colour' => 'black', 'front-seal-mm' => '2.437 in'],
            'tagCode' => ' k9b1234 ',
        ])->assertCreated();
        $answers = array_column(
            $this->onCard('identification.questions'),
            'answer',
            'feature',
        );
        $this->assertSame(['black', '61.8998'], [$answers['connector-colour'], $answers['front-seal-mm']]);
        $this->assertSame('K9B1234', $card->json('receiving.tagCode'));
        $this->assertProblem(
            $this->receive('C-9002', ['observed' => ['connector-colour' => 'purple']]),
            422,
            'no answer',
            '/value',
        );
    }

    public function test_damage_on_arrival_is_photographed_before_a_tool_touches_the_unit(): void
    {
        $this->receive('C-9001', [
            'damage' => [['place' => 'pan', 'what' => 'dented, one bolt loose']],
        ])->assertCreated();
        foreach (
            ['connector-colour' => 'black', 'connector-cavities' => '16', 'pan-bolts' => '14'] as $feature => $value
        ) {
            $this->write('/units/C-9001/identification/clues', [
                'feature' => $feature,
                'value' => $value,
            ])->assertOk();
        }
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M'])->assertOk();
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->write('/units/C-9001/ordering/release', [
            'version' => 1,
            'acknowledged' => ['pressure-raised', 'lockup-firm'],
        ])->assertOk();
        $this->assertProblem(
            $this->as('teardown')->prove('C-9001', 'teardown', 'filter', 'done'),
            409,
            'photograph',
        );
        $this->post(
            '/api/units/C-9001/photos',
            ['photo' => UploadedFile::fake()->image('pan.jpg', 40, 40), 'place' => 'pan'],
            ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json'],
        )->assertCreated();
        $this->assertProblem(
            $this->prove('C-9001', 'teardown', 'filter', 'done'),
            409,
            'comes after', // and no longer the picture
        );
    }

    public function test_the_credit_is_revised_once_after_teardown_with_its_reason(): void
    {
        $unit = $this->bringTo('ordering');
        $this->assertProblem(
            $this->as('receiver')->write('/units/C-9001/money/credit-revision', [
                'reason' => 'x',
                'version' => $unit->version,
            ]),
            409,
            'after teardown',
        );
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->write('/units/C-9001/ordering/release', [
            'version' => 1,
            'acknowledged' => ['pressure-raised', 'lockup-firm'],
        ])->assertOk();
        $this->as('teardown');
        $this->workThrough('C-9001', 'teardown');
        $this->write('/units/C-9001/teardown/findings', [
            'part' => 'planet',
            'condition' => 'loose pins',
            'version' => 1,
            'disposition' => 'scrap',
            'role' => 'collateral',
        ])->assertCreated();
        $this->write('/units/C-9001/teardown/complete')->assertOk();
        $before = (float) $this->unit()->credit;
        $preview = $this->as('receiver')->read('/units/C-9001/money/credit-revision')->assertOk()->json();
        $this->assertCount(1, $preview['lostParts']);
        $price = (float) \App\Catalog\Models\Part::query()->where('number', $preview['lostParts'][0])->value('price');
        $this->assertEqualsWithDelta(
            max($before - $price, (float) $this->unit()->variant->scrap_value),
            $preview['credit'],
            0.005,
        );
        $this->assertProblem(
            $this->write('/units/C-9001/money/credit-revision', [
                'reason' => '',
                'version' => $this->unit()->version,
            ]),
            422,
            'Say why',
            '/reason',
        );
        $card = $this->write('/units/C-9001/money/credit-revision', [
            'reason' => 'Planet set lost its pins.',
            'version' => $this->unit()->version,
        ])->assertOk();
        $this->assertSame(
            [$before, 'Planet set lost its pins.'],
            [(float) $card->json('receiving.creditRevision.before'), $card->json('receiving.creditRevision.reason')],
        );
        $this->assertProblem(
            $this->write('/units/C-9001/money/credit-revision', [
                'reason' => 'again',
                'version' => $this->unit()->version,
            ]),
            409,
            'once',
        );
    }

    public function test_a_shipped_exchange_unit_is_owed_a_core_until_one_comes_back(): void
    {
        $this->tampered = true;
        \DB::table('builds')->insert([
            'unit_id' => $this->bringTo('ordering')->id,
            'serial' => 'VY-99-0001',
            'generation' => 1,
            'package_id' => \DB::table('packages')->value('id'),
            'duty' => 'daily',
            'spec' => '{}',
            'price' => 1,
            'hours' => 1,
            'state' => 'shipped',
            'created_by' => 1 + (int) \DB::table('people')->min('id') - 1,
            'created_at' => now(),
        ]);
        $build = \App\Yard\Models\Build::query()->where('serial', 'VY-99-0001')->firstOrFail();
        $customer = \App\Shop\Models\Customer::query()->where('code', 'WS-PIER')->firstOrFail();
        app(\App\Money\Actions\OweCore::class)->charge($build, $this->unit(), $customer);
        $balance = fn () => collect(
            $this->as('receiver')->read('/money/core-balances')->assertOk()->json('balances'),
        )->firstWhere('customer.code', 'WS-PIER');
        $this->assertSame([1, 0], [$balance()['owed'], $balance()['overdue']]);
        $this->travel(31)->days();
        $this->assertSame(1, $balance()['overdue']);
        $this->receive('C-9005', [
            'customer' => 'WS-PIER',
            'grade' => 'X',
            'gradeReason' => 'Burnt.',
        ])->assertCreated();
        $this->assertSame(1, $balance()['owed'], 'a refused core settles nothing');
        $this->receive('C-9006', ['customer' => 'WS-PIER'])->assertCreated();
        $this->receive('C-9007', ['customer' => 'WS-PIER'])->assertCreated();
        $this->assertSame([0, 3], [$balance()['owed'], $balance()['received']]);
        $statement = $this->read('/money/customers/WS-PIER/statement')->assertOk()->json();
        $this->assertSame(
            ['C-9006', false],
            [$statement['debts'][0]['settledBy'], $statement['debts'][0]['overdue']],
        );
        $this->assertSame([false, true, false], array_column($statement['cores'], 'settles'));
        $this->assertEqualsWithDelta(
            array_sum(array_column($statement['cores'], 'credit')),
            $statement['totals']['credited'],
            0.001,
        );
        $this->assertProblem(
            $this->read('/money/customers/WS-PIER/statement?from=2026-05-02&to=2026-05-01'),
            422,
            'to',
            '/to',
        );
        $this->travelBack();
    }

    public function test_pressures_and_codes_feed_the_diagnosis(): void
    {
        $this->bringTo('identification');
        $report = fn (array $more) => $this->as('teardown')
            ->write(
                '/units/C-9001/teardown/symptoms',
                ['observed' => ['1' => 'slips', '2' => 'slips', '3' => 'slips']] + $more,
            )
            ->assertOk()
            ->json('teardown');
        $without = array_column($report([])['suspects'], 'posterior', 'element');
        $with = $report(['pressures' => ['line' => 'low', 'C1' => 'low']]);
        $this->assertGreaterThan(
            $without['line-pressure'],
            array_column($with['suspects'], 'posterior', 'element')['line-pressure'],
        );
        $this->assertSame([['code' => 'P0730', 'means' => 'ratio', 'gear' => null]], $with['codes']);
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/symptoms', ['observed' => [], 'pressures' => ['C77' => 'low']]),
            422,
            'no circuit',
            '/pressures/C77',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/symptoms', ['observed' => [], 'pressures' => ['C1' => 'wobbly']]),
            422,
            'must be one of',
        );
    }
}

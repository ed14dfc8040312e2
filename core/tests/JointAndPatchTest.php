<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Fasteners\JointLimit;
use Yard\Core\Fasteners\Thread;
use Yard\Core\Hydraulics\AirLeak;
use Yard\Core\Hydraulics\PatchCount;

/** What the benches ask of the core without a calculator between: joints, leaks, patches. */
final class JointAndPatchTest extends CoreTestCase
{
    public function test_a_joint_says_the_same_as_its_calculator(): void
    {
        $joints = [
            ['M6x1.0', '8.8', 9.0, 150.0],
            ['M8x1.25', '10.9', 6.0, 110.0],
            ['5/16-18', 'SAE 5', 14.0, 150.0],
        ];
        foreach ($joints as [$thread, $grade, $engagement, $shear]) {
            $calculated = $this->calc('fastener.strip', [
                'thread' => $thread,
                'grade' => $grade,
                'engagement_mm' => $engagement,
                'holeShear_mpa' => $shear,
                'k' => 0.2,
            ]);
            $joint = JointLimit::of(Thread::of($thread), $grade, $engagement, $shear, 0.2);
            $this->assertSame($calculated['failsFirst'], $joint->givesFirst);
            $this->assertRelative($calculated['torqueLimit_nm'], $joint->torqueNm);
        }
    }

    /** A shallow hole in soft metal strips; the same bolt deep in it breaks (common practice, no source). */
    public function test_depth_turns_a_stripped_hole_into_a_broken_bolt(): void
    {
        $thread = Thread::of('M8x1.25');
        $of = fn (float $depth): string => JointLimit::of($thread, '10.9', $depth, 110.0, 0.2)->givesFirst;
        $this->assertSame(['hole', 'bolt'], [$of(6.0), $of(40.0)]);
    }

    public function test_what_bleeds_on_purpose_is_no_leak(): void
    {
        $leak = AirLeak::ofDecay(0.2, 377.0, 350.0, 10.0, 20.0);
        $whole = $leak->netDiameterMm();
        $this->assertRelative(sqrt($whole ** 2 - 0.05 ** 2), $leak->netDiameterMm(0.05));
        $this->assertRelative(sqrt($whole ** 2 - 0.05 ** 2 - 0.04 ** 2), $leak->netDiameterMm(0.05, 0.04));
        $this->assertSame(0.0, $leak->netDiameterMm(5.0), 'less than none is none');
        $this->expectException(BadInput::class);
        AirLeak::ofDecay(0.2, 350.0, 377.0, 10.0, 20.0);
    }

    /** ISO 4406: 1,300 to 2,500 is 18, 320 to 640 is 16, 40 to 80 is 13 (from memory). */
    public function test_a_patch_is_coded_and_held_against_a_target(): void
    {
        $patch = PatchCount::of(['um4' => 2000.0, 'um6' => 500.0, 'um14' => 60.0]);
        $this->assertSame('18/16/13', $patch->code());
        $this->assertSame([], $patch->over('18/16/13'));
        $this->assertSame(['um6', 'um14'], $patch->over('18/15/12'));
        $two = PatchCount::of(['um6' => 500.0, 'um14' => 60.0]);
        $this->assertSame('–/16/13', $two->code());
        $this->assertSame([], $two->over('10/16/13'), 'what was not counted is not over');
    }

    /** @return array<string, array{array<string, float>, string}> */
    public static function impossible(): array
    {
        return [
            'fewer than none' => [['um6' => -1.0, 'um14' => -2.0], '/um6'],
            'more of the larger' => [['um4' => 10.0, 'um6' => 20.0, 'um14' => 1.0], '/um6'],
            'beyond the scale' => [['um6' => 9e9, 'um14' => 1.0], '/um6'],
            'no number' => [['um6' => NAN, 'um14' => 1.0], '/um6'],
        ];
    }

    /** @param  array<string, float>  $perMl */
    #[DataProvider('impossible')]
    public function test_what_cannot_be_counted_is_refused_where_it_stands(array $perMl, string $at): void
    {
        try {
            PatchCount::of($perMl);
            $this->fail('It was coded.');
        } catch (BadInput $e) {
            $this->assertSame($at, $e->path);
        }
        $this->expectException(BadInput::class);
        PatchCount::of(['um6' => 5.0, 'um14' => 1.0])->over('clean');
    }
}

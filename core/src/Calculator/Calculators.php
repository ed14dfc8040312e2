<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** The calculators by public name. Schemas live in core/schema/NAME.json. */
final class Calculators
{
    /** @var array<string, class-string<Calculator>> */
    private const BY_NAME = [
        'accumulator.window' => AccumulatorWindow::class,
        'aircheck.leak' => AircheckLeak::class,
        'band.capacity' => BandCapacity::class,
        'clutch.capacity' => ClutchCapacity::class,
        'control.map' => ControlMap::class,
        'converter.depth' => ConverterDepth::class,
        'converter.match' => ConverterMatch::class,
        'cooler.balance' => CoolerBalance::class,
        'diagnose.gears' => DiagnoseGears::class,
        'endplay.select' => EndplaySelect::class,
        'evidence.rank' => EvidenceRank::class,
        'evidence.reliability' => EvidenceReliability::class,
        'fastener.strip' => FastenerStrip::class,
        'fastener.torque' => FastenerTorque::class,
        'fault.simulate' => FaultSimulate::class,
        'fit.batch' => FitBatch::class,
        'fit.stack' => FitStack::class,
        'fluid.cleanliness' => FluidCleanliness::class,
        'geartrain.coast' => GeartrainCoast::class,
        'geartrain.solve' => GeartrainSolve::class,
        'grade.agreement' => GradeAgreement::class,
        'interchange.path' => InterchangePath::class,
        'interchange.supersession' => InterchangeSupersession::class,
        'launch.hold' => LaunchHold::class,
        'life.km' => LifeKm::class,
        'life.logrank' => LifeLogrank::class,
        'life.replace' => LifeReplace::class,
        'life.weibull' => LifeWeibull::class,
        'lining.temperature' => LiningTemperature::class,
        'orifice.flow' => OrificeFlow::class,
        'package.resolve' => PackageResolve::class,
        'piston.centrifugal' => PistonCentrifugal::class,
        'power.margin' => PowerMargin::class,
        'power.weakened' => PowerWeakened::class,
        'press.fit' => PressFit::class,
        'rate.interval' => RateInterval::class,
        'receive.credit' => ReceiveCredit::class,
        'receive.grade' => ReceiveGrade::class,
        'shaft.torsion' => ShaftTorsion::class,
        'shift.energy' => ShiftEnergy::class,
        'shift.feel' => ShiftFeel::class,
        'shift.handover' => ShiftHandover::class,
        'spc.capability' => SpcCapability::class,
        'spc.limits' => SpcLimits::class,
        'spring.helical' => SpringHelical::class,
        'tag.parse' => TagParse::class,
        'thrust.converter' => ThrustConverter::class,
        'torque.adapter' => TorqueAdapter::class,
        'torque.lever' => TorqueLever::class,
        'trace.analyse' => TraceAnalyse::class,
        'tyre.size' => TyreSize::class,
        'units.convert' => UnitsConvert::class,
        'units.parse' => UnitsParse::class,
        'vehicle.launch' => VehicleLaunch::class,
        'vin.check' => VinCheck::class,
        'work.plan' => WorkPlan::class,
    ];

    /** @return list<string> */
    public static function names(): array
    {
        return array_keys(self::BY_NAME);
    }

    public static function exists(string $name): bool
    {
        return isset(self::BY_NAME[$name]);
    }

    /** The calculator's JSON Schema document (summary, input, output, example) as text. */
    public static function schema(string $name): string
    {
        self::assertKnown($name);

        return (string) file_get_contents(dirname(__DIR__, 2)."/schema/$name.json");
    }

    /**
     * Runs a calculator on decoded JSON (objects as stdClass).
     *
     * @return array<string, mixed> the result; fields given but not read are listed under "ignored"
     *
     * @throws BadInput
     */
    public static function run(string $name, mixed $decoded): array
    {
        return self::runOn($name, Input::of($decoded));
    }

    /**
     * Runs a calculator on an array built in PHP (lists and string-keyed arrays).
     *
     * @param  array<string, mixed>  $fields
     * @return array<string, mixed>
     *
     * @throws BadInput
     */
    public static function call(string $name, array $fields): array
    {
        return self::runOn($name, Input::of($fields));
    }

    /**
     * @return array<string, mixed>
     *
     * @throws BadInput
     */
    public static function runOn(string $name, Input $in): array
    {
        self::assertKnown($name);
        $in->isObject() || throw $in->fail('type', 'The input must be a JSON object.');
        $class = self::BY_NAME[$name];
        $out = (new $class())->calculate($in);
        $ignored = $in->ignored();
        if ($ignored !== []) {
            $out['ignored'] = $ignored;
        }
        /** @var array<string, mixed> $clean */
        $clean = self::clean($out);

        return $clean;
    }

    private static function assertKnown(string $name): void
    {
        if (! isset(self::BY_NAME[$name])) {
            throw new BadInput('unknown-calculator', "There is no calculator \"$name\"; --list prints the names.");
        }
    }

    /** Turns -0.0 into 0.0 and refuses to let a result that is not a number out. */
    private static function clean(mixed $value): mixed
    {
        if (is_float($value)) {
            if (! is_finite($value)) {
                throw new BadInput(
                    'not-finite',
                    'The result is beyond what a number can hold; check the size of the inputs.',
                );
            }

            return $value + 0.0;
        }
        if (is_array($value)) {
            return array_map(self::clean(...), $value);
        }
        if ($value instanceof \stdClass) {
            return (object) array_map(self::clean(...), get_object_vars($value));
        }

        return $value;
    }
}

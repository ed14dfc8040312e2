<?php

declare(strict_types=1);

namespace Yard\Core;

/** The calculators by public name. Schemas live in core/schema/NAME.json. */
final class Calculators
{
    /** @var array<string, class-string<Calculator>> */
    private const BY_NAME = [
        'accumulator.window' => Hydraulics\AccumulatorWindow::class,
        'band.capacity' => Hydraulics\BandCapacity::class,
        'clutch.capacity' => Hydraulics\ClutchCapacity::class,
        'converter.depth' => Fit\ConverterDepth::class,
        'converter.match' => Power\ConverterMatch::class,
        'diagnose.gears' => Diagnosis\DiagnoseGears::class,
        'endplay.select' => Fit\EndPlay::class,
        'evidence.rank' => Evidence\RankHypotheses::class,
        'evidence.reliability' => Evidence\LearnReliability::class,
        'fastener.torque' => Fasteners\FastenerTorque::class,
        'fit.stack' => Fit\Stack::class,
        'geartrain.solve' => GearTrain\SolveGearTrain::class,
        'interchange.path' => Interchange\FindPath::class,
        'interchange.supersession' => Interchange\Supersession::class,
        'orifice.flow' => Hydraulics\OrificeFlow::class,
        'package.resolve' => Packages\ResolvePackage::class,
        'piston.centrifugal' => Hydraulics\PistonCentrifugal::class,
        'power.margin' => Power\PowerMargin::class,
        'rate.interval' => Life\RateInterval::class,
        'receive.credit' => Credit\CoreCredit::class,
        'receive.grade' => Credit\GradeCore::class,
        'shift.energy' => Power\ShiftEnergy::class,
        'shift.feel' => Power\CompareShiftFeel::class,
        'spring.helical' => Hydraulics\SpringHelical::class,
        'tag.parse' => Identification\ParseTag::class,
        'torque.adapter' => Fasteners\TorqueAdapter::class,
        'torque.lever' => Fasteners\TorqueLever::class,
        'trace.analyse' => Dyno\AnalyseTrace::class,
        'tyre.size' => Power\TyreSize::class,
        'units.convert' => Units\ConvertUnits::class,
        'units.parse' => Units\ParseQuantity::class,
        'vehicle.launch' => Power\VehicleLaunch::class,
        'vin.check' => Vin\CheckVin::class,
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

        return (string) file_get_contents(dirname(__DIR__)."/schema/$name.json");
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
        return self::runOn(
            $name,
            Input::fromJson(json_encode($fields, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION)),
        );
    }

    /**
     * @return array<string, mixed>
     *
     * @throws BadInput
     */
    public static function runOn(string $name, Input $in): array
    {
        self::assertKnown($name);
        if (! ($in->raw() instanceof \stdClass)) {
            throw $in->fail('type', 'The input must be a JSON object.');
        }
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

<?php

namespace App\Catalog\Exchange;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\ProgramPlan;
use Yard\Core\Input;

/** Programs of the cell: what no rig can run is not kept. */
final class CheckPrograms
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        try {
            $ratios = ApplyChart::read(Input::of($family->train))->ratios();
        } catch (BadInput) {
            return []; // the train itself is at fault, and is said to be
        }
        $errors = [];
        foreach ($family->testPrograms as $i => $program) {
            try {
                ProgramPlan::read(Input::of($program->body), $ratios);
            } catch (BadInput $e) {
                $errors[] = ['pointer' => "$at/testPrograms/$i/body$e->path", 'detail' => $e->getMessage()];
            }
            array_push($errors, ...self::references($family, $program->body, "$at/testPrograms/$i/body/references"));
        }

        return $errors;
    }

    /**
     * Windows of good units name variants and options of their family; an option that changes no hardware would never
     * be found among those of a build.
     *
     * @return list<array{pointer: string, detail: string}>
     */
    private static function references(\stdClass $family, \stdClass $program, string $at): array
    {
        $variants = array_column($family->variants, 'code');
        $options = array_column(array_filter($family->options, fn ($o) => isset($o->body->power)), 'code');
        $errors = [];
        foreach ($program->references ?? [] as $i => $reference) {
            foreach (array_diff($reference->variants, $variants) as $k => $code) {
                $errors[] = ['pointer' => "$at/$i/variants/$k", 'detail' => "There is no variant \"$code\"."];
            }
            foreach (array_diff($reference->options, $options) as $k => $code) {
                $errors[] = [
                    'pointer' => "$at/$i/options/$k",
                    'detail' => "There is no option \"$code\" that changes the hardware.",
                ];
            }
        }

        return $errors;
    }
}

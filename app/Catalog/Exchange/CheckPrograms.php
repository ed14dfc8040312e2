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
        }

        return $errors;
    }
}

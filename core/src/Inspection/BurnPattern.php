<?php

namespace Yard\Core\Inspection;

/** Where in its pack the damage lies, and what is looked at first (common practice, no source). */
enum BurnPattern: string
{
    case Even = 'even';
    case AtPiston = 'at-piston';
    case AwayFromPiston = 'away-from-piston';
    case Middle = 'middle';
    case Scattered = 'scattered';

    /** @param  bool  $healthy  no plate shows any damage */
    public function sentence(bool $healthy): string
    {
        return $healthy ? 'All plates are healthy.' : match ($this) {
            self::Even => 'All plates are alike: the whole pack slipped; look at its pressure and its seals.',
            self::AtPiston => 'Worse towards the piston: it does not let go or not evenly; look at the piston, '
                .'its springs and its bleed.',
            self::AwayFromPiston => 'Worse towards the backing plate: look at the plate, the ring and the seat they '
                .'lean on.',
            self::Middle => 'Worst in the middle: soaked in heat that found its way out at both ends only.',
            self::Scattered => 'No order in it: plates of different age or make lie in one pack; look who put them '
                .'there.',
        };
    }
}

<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Power\DutyReport;
use Yard\Core\Power\Hardware;
use Yard\Core\Power\HardwareChange;
use Yard\Core\Power\MarginReport;
use Yard\Core\Power\TrainDuty;

/** The torque margins of a choice of options; remembered by the options that change a capacity. */
final class Margins
{
    /** @var array<string, DutyReport> */
    private array $known = [];

    /** @param  array<string, HardwareChange>  $overrides  option => what it changes */
    public function __construct(private readonly TrainDuty $plan, private readonly array $overrides)
    {
    }

    public function concerns(string $option): bool
    {
        return isset($this->overrides[$option]);
    }

    /** @param  list<string>  $chosen */
    public function hold(array $chosen): bool
    {
        return $this->evaluate($chosen)->holds();
    }

    /**
     * @param  list<string>  $chosen
     * @return array<string, mixed> as power.margin reports it
     */
    public function of(array $chosen): array
    {
        return (new MarginReport($this->plan, $this->effective($chosen)))->toArray();
    }

    /** @param  list<string>  $chosen */
    public function evaluate(array $chosen): DutyReport
    {
        $active = $this->active($chosen);
        $key = implode("\0", $active);
        if (! isset($this->known[$key])) {
            $this->known[$key] = $this->plan->evaluate($this->effective($active));
        }

        return $this->known[$key];
    }

    /**
     * @param  list<string>  $chosen
     * @return list<string> those that change the hardware,
     *     in the order of the catalog: what replaces a part comes after it
     */
    private function active(array $chosen): array
    {
        return array_values(array_intersect(array_map(strval(...), array_keys($this->overrides)), $chosen));
    }

    /** @param  list<string>  $chosen */
    private function effective(array $chosen): Hardware
    {
        $hardware = $this->plan->hardware;
        foreach ($this->active($chosen) as $option) {
            $hardware = $hardware->with($this->overrides[$option]);
        }

        return $hardware;
    }
}
